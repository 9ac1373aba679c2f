<script lang="ts">
  // Whose fence it is and where, what is noted of the job and its runs, and
  // the words to find it by.
  import { at } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const run = $derived(session.run.name || session.run.id)
  const tags = $derived(session.value<string[]>('/tags') ?? [])

  function set(path: string, value: string, what: string) {
    if (value !== (session.own<string>(path) ?? '')) session.commit([{ path, value: value || null }], what)
  }
  function setTags(given: string) {
    const list = [...new Set(given.split(',').map((t) => t.trim()))].filter(Boolean)
    if (list.join() !== tags.join())
      session.commit(
        [{ path: '/tags', value: list.length ? list : null }],
        msg.notes_tags({ v1: list.join(', ') || msg.common_none }),
      )
  }
  const staked = $derived(session.run.posts.some((p) => labelOf(p.id)))
  function labelOf(id: string) {
    return session.value<{ id: string; label?: string }[]>(session.at('/laid'))?.find((l) => l.id === id)
      ?.label
  }
  /** Posts are called in order again, also those that were staked. */
  const renumber = () =>
    session.commit(
      (session.value<{ id: string; label?: string }[]>(session.at('/laid')) ?? [])
        .filter((l) => l.label)
        .map((l) => ({
          path: at(session.at('/laid'), l.id, 'label'),
          value: null,
        })),
      msg.notes_posts_of_numbered_again({ run }),
    )
</script>

<div class="grid max-w-4xl gap-4 sm:grid-cols-2">
  <div>
    <label class="label mb-1" for="customer">{msg.common_customer}</label>
    <input
      id="customer"
      class="field"
      maxlength="200"
      value={session.own<string>('/site/customer') ?? ''}
      onchange={(e) => set('/site/customer', e.currentTarget.value.trim(), msg.common_customer_noted)}
    />
  </div>
  <div>
    <label class="label mb-1" for="address">{msg.common_where_the_work_is}</label>
    <input
      id="address"
      class="field"
      maxlength="400"
      value={session.own<string>('/site/address') ?? ''}
      onchange={(e) => set('/site/address', e.currentTarget.value.trim(), msg.common_address_noted)}
    />
  </div>
  <div>
    <label class="label mb-1" for="job-notes">{msg.notes_notes_on_the_job}</label>
    <textarea
      id="job-notes"
      class="field min-h-28 py-2"
      maxlength="8000"
      value={session.own<string>('/notes') ?? ''}
      onchange={(e) => set('/notes', e.currentTarget.value, msg.notes_noted_on_the_job)}></textarea>
  </div>
  <div>
    <label class="label mb-1" for="run-notes">{msg.notes_notes_on({ run })}</label>
    <textarea
      id="run-notes"
      class="field min-h-28 py-2"
      maxlength="8000"
      value={session.own<string>(session.at('/notes')) ?? ''}
      onchange={(e) => set(session.at('/notes'), e.currentTarget.value, msg.notes_noted_on({ run }))}
    ></textarea>
  </div>
  <div class="sm:col-span-2">
    <label class="label mb-1" for="tags">{msg.notes_tags_a_comma_between}</label>
    <input
      id="tags"
      class="field"
      value={tags.join(', ')}
      aria-describedby="tags-wrong"
      onchange={(e) => setTags(e.currentTarget.value)}
    />
    <p id="tags-wrong" class="text-stop">{session.wrongAt('/tags') ?? ''}</p>
  </div>
  {#if staked}
    <div class="sm:col-span-2">
      <button class="btn" onclick={renumber}>{msg.notes_number_the_posts_of_again({ run })}</button>
      <p class="mt-1 text-pencil">
        {msg.notes_posts_that_were_staked_keep}
      </p>
    </div>
  {/if}
</div>
