<script lang="ts">
  // A table of the run, with the columns that sheets and files have too; a page
  // at a time. A row picks its post, a figure says why it is so.
  import type { TableRequest, TableRows } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { View } from '../drawing/view.svelte'
  import { ofBay, ofPost, ofTops } from '../lib/figure'
  import { postRole } from '../lib/names'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import Pager from './Pager.svelte'
  import { PAGE } from './page'

  interface Props {
    session: Session
    view: View
    table: TableRequest['table']
    caption: string
  }
  let { session, view, table, caption }: Props = $props()
  const run = $derived(session.run)
  const units = $derived(session.units)
  const page = $derived(Math.floor(session.post / PAGE))

  let shown = $state.raw<TableRows>()
  let gone = $state(false)
  $effect(() => {
    void session.plan // it is of the plan that is drawn
    const asking = new AbortController()
    const [from, t] = [page * PAGE, table]
    // The fence follows the hand; its table comes when the hand rests.
    const rests = setTimeout(
      () => {
        session
          .table(t, from, PAGE, asking.signal)
          .then((rows) => {
            shown = rows
            gone = false
          })
          .catch(() => {
            if (!asking.signal.aborted) gone = true
          })
      },
      session.store.previewing ? 150 : 0,
    )
    return () => {
      clearTimeout(rests)
      asking.abort()
    }
  })

  const first = $derived(shown?.columns[0]?.id === 'post' ? 2 : 1) // the post says its kind itself
  const columns = $derived((shown?.columns ?? []).map((c, k) => ({ ...c, k })).slice(first))

  function pick(i: number) {
    session.post = Math.min(Math.max(i, 0), run.posts.length - 1)
    view.show(session.drawn.posts[session.drawnPost]!.station)
  }

  const postOf = (row: TableRows['rows'][number]) =>
    row.post ? run.posts.findIndex((p) => p.id === row.post) : run.bays.findIndex((b) => b.id === row.bay)

  type Why = Parameters<typeof ofPost>[2] & Parameters<typeof ofBay>[2]
  const bays = new Set(['spacing', 'gap', 'lean'])
  /** Whose figure explains a cell: the row's post, its bay, or the tops of the run. */
  function figure(why: string, row: TableRows['rows'][number]) {
    if (why === 'tops') return ofTops(run)
    if (!bays.has(why)) return row.post ? ofPost(run, { id: row.post }, why as Why) : undefined
    return row.bay ? ofBay(run, { id: row.bay }, why as Why) : undefined
  }
  /** What a figure is called to those who ask why. */
  const asked: Record<string, string> = {
    station: 'station',
    top: 'top above ground',
    holeWidth: 'hole width',
    holeDepth: 'hole depth',
    concrete: 'concrete',
    stock: 'post length',
    tops: 'reference mark',
    spacing: 'spacing',
    gap: 'gap',
    lean: 'rail on the slope',
  }
  const named = (row: TableRows['rows'][number]) => String(row.cells[0])
</script>

{#snippet value(cell: unknown, kind: string)}
  {#if typeof cell === 'number'}
    {#if kind === 'rise'}<strong>{cell > 0 ? 'up' : 'down'} <Fraction mm={Math.abs(cell)} {units} /></strong
      >{:else}<Fraction mm={cell} {units} long={kind === 'tape'} />{/if}
  {:else}{cell ?? ''}{/if}
{/snippet}

<div class="relative mt-4 overflow-x-auto border border-line bg-sheet" data-table={table}>
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold"
      >{caption}{#if gone}<span class="font-normal text-stop">
          · Mallow does not answer; these are the rows of before</span
        >{/if}</caption
    >
    <thead>
      <tr
        ><th scope="col">{shown?.columns[0]?.name ?? ''}</th>{#each columns as c (c.id)}<th scope="col"
            >{c.name}</th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each shown?.rows ?? [] as row (row.post ?? row.bay)}
        {@const i = postOf(row)}
        {@const post = run.posts[i]}
        <tr class={i === session.post ? 'bg-mallow-wash' : ''}>
          <td>
            <button
              class="min-h-9 min-w-14 text-left font-bold {i === session.post ? 'text-mallow' : ''}"
              aria-pressed={i === session.post}
              onclick={() => pick(i)}
              >{row.post && post && post.kind !== 'line'
                ? `${named(row)} ${postRole(post, run)}`
                : named(row)}</button
            >
          </td>
          {#each columns as c (c.id)}
            {@const cell = row.cells[c.k]}
            {@const why = c.why && cell !== null ? figure(c.why, row) : undefined}
            <td data-column={c.id} class={c.main ? 'text-[1.05rem] font-semibold' : ''}
              >{#if why}<Figure {why} of="{named(row)} {asked[c.why!]}">{@render value(cell, c.kind)}</Figure
                >{:else}{@render value(cell, c.kind)}{/if}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="px-2">
    <Pager count={shown?.count ?? 0} {page} onpage={(n) => pick(n * PAGE)} />
  </div>
</div>
