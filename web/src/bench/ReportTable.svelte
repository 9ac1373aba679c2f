<script lang="ts">
  // A table of the run, with the columns that sheets and files have too; a page
  // at a time. A row picks its post, a figure says why it is so.
  import type { TableRequest, TableRows } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import type { View } from '../drawing/view.svelte'
  import { ofBay, ofPost, ofTops } from '../lib/figure'
  import { postRole } from '../lib/names'
  import { short, tape } from '../lib/tape'
  import Figure from '../parts/Figure.svelte'
  import Fraction from '../parts/Fraction.svelte'
  import Pager from './Pager.svelte'
  import { PAGE } from './page'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    view: View
    table: TableRequest['table']
    caption: string
  }
  let { session, view, table, caption }: Props = $props()
  const run = $derived(session.run)
  const units = $derived(session.units)
  /** The column whose order the rows are in; none: that of the line. */
  let sort = $state('')
  let down = $state(false)
  let find = $state('')
  /** Rows in another order, or some of them, are paged by hand; else the page is that of the picked post. */
  let turned = $state(0)
  const arranged = $derived(!!sort || !!find.trim())
  const page = $derived(arranged ? turned : Math.floor(session.post / PAGE))
  const order = $derived({
    table,
    sort: sort || undefined,
    down: down || undefined,
    find: find.trim() || undefined,
  })

  let shown = $state.raw<TableRows>()
  let gone = $state(false)
  $effect(() => {
    void session.plan // it is of the plan that is drawn
    const asking = new AbortController()
    const asked = { ...order, from: page * PAGE, most: PAGE }
    // The fence follows the hand; its table comes when the hand rests.
    const rests = setTimeout(
      () => {
        session
          .table(asked, asking.signal)
          .then((rows) => {
            shown = rows
            gone = false
          })
          .catch(() => {
            if (!asking.signal.aborted) gone = true
          })
      },
      session.store.previewing ? 150 : find ? 120 : 0,
    )
    return () => {
      clearTimeout(rests)
      asking.abort()
    }
  })

  const first = $derived(shown?.columns[0]?.id === 'post' && shown.columns[1]?.id === 'kind' ? 2 : 1) // the post says its kind itself
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
    top: msg.report_table_top_above_ground,
    holeWidth: msg.report_table_hole_width,
    holeDepth: msg.report_table_hole_depth,
    concrete: 'concrete',
    stock: msg.report_table_post_length,
    tops: msg.report_table_reference_mark,
    spacing: 'spacing',
    gap: 'gap',
    lean: msg.report_table_rail_on_the_slope,
  }
  /** Columns of figures, whose digits stand under one another. */
  const figures = (kind: string) => kind !== 'text' && kind !== 'words' && kind !== 'flag'
  function by(column: string) {
    if (sort !== column) [sort, down] = [column, false]
    else if (!down) down = true
    else [sort, down] = ['', false]
    turned = 0
  }
  let copied = $state('')
  /** All rows, as they are shown, to be put into another program's sheet. */
  async function copy() {
    const lines: string[] = []
    const said = (cell: unknown, kind: string) =>
      typeof cell !== 'number' ? String(cell ?? '') : kind === 'tape' ? tape(cell, units) : short(cell, units)
    try {
      for (let from = 0; ; from += MOST) {
        const rows = await session.table({ ...order, from, most: MOST }, new AbortController().signal)
        if (!from) lines.push(rows.columns.map((c) => c.name).join('\t'))
        for (const r of rows.rows)
          lines.push(r.cells.map((c, k) => said(c, rows.columns[k]!.kind)).join('\t'))
        if (from + MOST >= rows.count) break
      }
      await navigator.clipboard.writeText(lines.join('\n') + '\n')
      copied = msg.report_table_rows_copied({ v1: lines.length - 1 })
    } catch (e) {
      copied = msg.report_table_not_copied({ why: e instanceof Error ? e.message : String(e) })
    }
    setTimeout(() => (copied = ''), 4000)
  }
  const MOST = 500
  const named = (row: TableRows['rows'][number]) => String(row.cells[0])
</script>

{#snippet value(cell: unknown, kind: string)}
  {#if typeof cell === 'number'}
    {#if kind === 'rise'}<strong>{cell > 0 ? 'up' : 'down'} <Fraction mm={Math.abs(cell)} {units} /></strong
      >{:else}<Fraction mm={cell} {units} long={kind === 'tape'} />{/if}
  {:else}{cell ?? ''}{/if}
{/snippet}

<div class="mt-3 flex flex-wrap items-center gap-2 first:mt-0">
  <label class="flex-1">
    <span class="sr-only">{msg.report_table_find_in({ caption })}</span>
    <input
      type="search"
      class="field max-w-56 text-[1rem]!"
      placeholder={msg.report_table_find_such_as_p7_or}
      maxlength="200"
      bind:value={find}
      oninput={() => (turned = 0)}
    />
  </label>
  {#if arranged}
    <span role="status">{msg.report_table_rows({ v1: shown?.count ?? 0 })}</span>
    <button
      class="btn"
      onclick={() => {
        sort = find = ''
        down = false
      }}>{msg.report_table_as_on_the_line}</button
    >
  {/if}
  <button class="btn" onclick={copy}>{copied || msg.report_table_copy}</button>
</div>
<div class="relative mt-1.5 overflow-x-auto border border-line bg-sheet" data-table={table}>
  <table class="sheet-table w-full">
    <caption class="px-2 pt-2 text-left font-bold"
      >{caption}{#if gone}<span class="font-normal text-stop">
          {msg.report_table_mallow_does_not_answer_these}</span
        >{/if}</caption
    >
    <thead>
      <tr
        >{#each (shown?.columns.slice(0, 1) ?? [])
          .map((c) => ({ ...c, k: 0 }))
          .concat(columns) as c (c.id)}<th
            scope="col"
            aria-sort={sort === c.id ? (down ? 'descending' : 'ascending') : undefined}
            class={figures(c.kind) ? 'text-right!' : ''}
            ><button
              class="min-h-8 font-medium hover:text-ink {sort === c.id ? 'font-bold text-ink' : ''}"
              onclick={() => by(c.id)}>{c.name}{sort === c.id ? (down ? ' ▾' : ' ▴') : ''}</button
            ></th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each shown?.rows ?? [] as row (row.post ?? row.bay)}
        {@const i = postOf(row)}
        {@const post = run.posts[i]}
        <!-- Its first cell is a button for who uses keys. -->
        <tr
          class="cursor-pointer {i === session.post ? 'bg-mallow-wash' : 'hover:bg-paper'}"
          onclick={(e) => {
            if (!(e.target instanceof Element && e.target.closest('button'))) pick(i)
          }}
        >
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
            <td
              data-column={c.id}
              class="{figures(c.kind) ? 'text-right' : ''} {c.main ? 'text-[1.05rem] font-semibold' : ''}"
              >{#if why}<Figure {why} of="{named(row)} {asked[c.why!]}">{@render value(cell, c.kind)}</Figure
                >{:else}{@render value(cell, c.kind)}{/if}</td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="px-2">
    <Pager count={shown?.count ?? 0} {page} onpage={(n) => (arranged ? (turned = n) : pick(n * PAGE))} />
  </div>
</div>
