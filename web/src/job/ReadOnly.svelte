<script lang="ts">
  // A job that cannot be planned: why, and the ways out. Nothing of it is
  // changed by looking at it.
  import { onMount } from 'svelte'
  import type { JobState, RevisionSummary } from '../gen/api'
  import { api } from '../lib/api'
  import { wrongSays } from '../lib/wrong'
  import * as msg from '../gen/messages'

  interface Props {
    job: JobState
    onchanged: () => void
  }
  let { job, onchanged }: Props = $props()
  let revisions = $state.raw<RevisionSummary[]>([])
  let trouble = $state('')
  const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
  let more = $state(false)
  async function older() {
    const page = await api.history(job.id, revisions.at(-1)?.number)
    revisions = [...revisions, ...page.revisions]
    more = page.more
  }
  onMount(() => void older())

  async function back(number: number) {
    try {
      await api.restore(job.id, { base: job.revision, generation: job.generation }, number)
      onchanged()
    } catch (e) {
      trouble = e instanceof Error ? e.message : String(e)
    }
  }
</script>

<main class="mx-auto max-w-2xl p-4 sm:p-6">
  <h1 class="text-2xl font-bold">
    {msg.read_only_cannot_be_planned({ v1: job.name || msg.read_only_this_job })}
  </h1>
  <div class="mt-3 border-l-4 border-stop bg-stop-wash p-3">
    {#each (job.wrong ?? []).slice(0, 4) as e (e.field)}<p>{wrongSays(e)}</p>{:else}<p>
        {job.problem}
      </p>{/each}
    {#if (job.wrong?.length ?? 0) > 4}<p>{msg.read_only_and_more({ v1: job.wrong!.length - 4 })}</p>{/if}
  </div>
  <p class="mt-3 max-w-prose">
    {msg.read_only_it_is_kept_as_it}
  </p>
  {#if trouble}<p class="mt-3 font-semibold text-stop" role="alert">{trouble}</p>{/if}
  <p class="mt-4 flex flex-wrap gap-2">
    <a class="btn inline-flex" href="/api/jobs/{job.id}/export?what=json" download
      >{msg.read_only_the_job_document_json}</a
    >
    <a class="btn inline-flex" href="/">{msg.common_all_jobs}</a>
  </p>
  {#if revisions.length > 1}
    <h2 class="mt-6 text-lg font-bold">{msg.read_only_go_back_to_what_it}</h2>
    <ol class="mt-2 border-b border-rule">
      {#each revisions as r (r.number)}
        <li class="flex items-center gap-3 border-t border-rule py-1.5">
          <span class="w-8 text-right text-pencil">{r.number}</span>
          <span class="min-w-0 flex-1 leading-snug"
            ><span class="font-semibold">{r.what}</span><span class="block text-[0.9rem] text-pencil"
              >{when.format(new Date(r.savedAt))}</span
            ></span
          >
          {#if r.current}<span class="font-semibold text-mallow">{msg.common_current}</span>
          {:else}<button class="btn" onclick={() => back(r.number)}
              >{msg.common_go_back}<span class="sr-only">
                {msg.common_to_revision({ v1: r.number })}</span
              ></button
            >{/if}
        </li>
      {/each}
      {#if more}<li class="border-t border-rule py-1.5 text-center">
          <button class="btn" onclick={older}>{msg.history_older}</button>
        </li>{/if}
    </ol>
  {/if}
</main>
