<script lang="ts">
  // The ground, as it was written down: heights at stations, or pages of the
  // field book. All come to one profile.
  import Plus from '@lucide/svelte/icons/plus'
  import type { Book } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import Later from '../../parts/Later.svelte'
  import BookPage from './BookPage.svelte'
  import Heights from './Heights.svelte'
  import LaserWalk from './LaserWalk.svelte'
  import PegTest from './PegTest.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const books = $derived(session.value<Book[]>(session.lineAt('/books')) ?? [])
  const mine = $derived(
    books.map((b, i) => ({ b, i })).filter(({ b }) => b.kind === 'rod' || b.run === session.run.id),
  )
  const kinds = {
    drops: msg.common_string_drops,
    rises: msg.common_rise_and_fall,
    rod: msg.common_level_survey,
  }
  const own = $derived(session.value<unknown[]>(session.at('/ground'))?.length ?? 0)
  // Opens on what holds something.
  let open = $state<string | null>(null)
  const shown = $derived(open ?? (own || !mine.length ? 'heights' : mine[mine.length - 1]!.b.id))
  const page = $derived(mine.find(({ b }) => b.id === shown))

  const fresh = () => newID(books, 'B')
  function add(kind: 'drops' | 'rises') {
    const id = fresh()
    const book: Book = { id, kind, run: session.run.id, rows: kind === 'rises' ? [{ at: 0 }] : [] }
    session.commit(
      [{ path: at(session.lineAt('/books'), id), value: book }],
      msg.ground_a_new_page({ v1: kinds[kind] }),
    )
    open = id
  }
  function addRod() {
    const id = fresh()
    const book: Book = { id, kind: 'rod', rows: [] }
    session.commit(
      [{ path: at(session.lineAt('/books'), id), value: book }],
      msg.ground_level_survey_a_new_page,
    )
    open = id
  }
  const runName = (id?: string) => session.plan.runs.find((r) => r.id === id)?.name || id
</script>

<div class="grid gap-x-8 gap-y-4 lg:grid-cols-[15rem_minmax(0,1fr)]">
  <div>
    <h2 class="font-bold">{msg.ground_written_down_as}</h2>
    <div class="mt-1 grid gap-1.5 sm:max-lg:grid-cols-2">
      <button
        class="btn justify-between text-left {shown === 'heights' ? 'border-ink bg-tape font-bold' : ''}"
        aria-pressed={shown === 'heights'}
        onclick={() => (open = 'heights')}
        >{msg.common_ground_heights}<span class="font-normal">{own || ''}</span></button
      >
      {#each mine as { b } (b.id)}
        <button
          class="btn justify-between text-left {shown === b.id ? 'border-ink bg-tape font-bold' : ''}"
          aria-pressed={shown === b.id}
          onclick={() => (open = b.id)}
          ><span>{b.name || `${kinds[b.kind]}${b.kind === 'rod' ? '' : `, ${runName(b.run)}`}`}</span><span
            class="font-normal">{b.rows?.length || ''}</span
          ></button
        >
      {/each}
    </div>
    <p class="label mt-3">{msg.ground_a_new_page_2}</p>
    <div class="mt-1 grid gap-1.5 sm:max-lg:grid-cols-3">
      <button class="btn justify-start" onclick={() => add('drops')}
        ><Plus size={18} aria-hidden="true" />{msg.common_string_drops}</button
      >
      <button class="btn justify-start" onclick={() => add('rises')}
        ><Plus size={18} aria-hidden="true" />{msg.common_rise_and_fall}</button
      >
      <button class="btn justify-start" onclick={addRod}
        ><Plus size={18} aria-hidden="true" />{msg.common_level_survey}</button
      >
    </div>
    <p class="label mt-4">{msg.ground_the_level_that_ships_with}</p>
    <div class="mt-1 grid gap-3">
      <LaserWalk {session} id={fresh} onpage={(id) => (open = id)} />
      <PegTest {session} page={page?.b.kind === 'rod' ? page.b.id : undefined} />
    </div>
  </div>
  <div class="min-w-0">
    {#if page && page.b.kind === 'rod'}
      {#key page.b.id}<Later
          load={() => import('./RodPage.svelte')}
          name={msg.common_level_survey}
          props={{ session, book: page.b }}
        />{/key}
    {:else if page}
      {#key page.b.id}<BookPage {session} book={page.b} />{/key}
    {:else}
      <Heights {session} />
    {/if}
  </div>
</div>
