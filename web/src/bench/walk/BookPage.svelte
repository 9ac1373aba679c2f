<script lang="ts">
  // A page of string drops, or of rises and falls, as the crew writes it down.
  import { wrongSays } from '../../lib/wrong'
  import X from '@lucide/svelte/icons/x'
  import type { Book, BookRow } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { short, tape } from '../../lib/tape'
  import Fraction from '../../parts/Fraction.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Pager from '../Pager.svelte'
  import { PAGE, pageOf } from '../page'
  import NextRow from './NextRow.svelte'
  import PageHead from './PageHead.svelte'
  import * as msg from '../../gen/messages'

  let { session, book }: { session: Session; book: Book } = $props()
  const units = $derived(session.units)
  const path = $derived(at(session.lineAt('/books'), book.id))
  const drops = $derived(book.kind === 'drops')
  const field = $derived(drops ? 'drop' : 'rise')
  const word = $derived(drops ? msg.book_page_drop : msg.book_page_rise_or_fall_with_a)
  const rows = $derived(book.rows ?? [])

  let page = $state(0)
  function put(list: BookRow[], what: string) {
    session.commit([{ path: `${path}/rows`, value: list }], what)
  }
  const named = (station: number, v: number) =>
    `${drops ? msg.book_page_drop : msg.common_rise} at ${tape(station, units)}: ${short(v, units)}`
  function add(station: number, value: number) {
    const others = rows.filter((r) => Math.abs((r.at ?? 0) - station) > 0.001)
    page = Math.floor(others.filter((r) => (r.at ?? 0) < station).length / PAGE)
    const place = { id: newID(rows, 'w'), at: station }
    const row: BookRow = others.length || drops ? { ...place, [field]: value } : place
    put(
      [...others, row].sort((a, b) => (a.at ?? 0) - (b.at ?? 0)),
      named(station, value),
    )
  }
  const rowPath = (r: BookRow, name: string) => at(path, 'rows', r.id!, name)
  const height = (r: BookRow) =>
    (
      session.run.ground.find((g) => g.path === rowPath(r, 'drop')) ??
      session.run.ground.find((g) => Math.abs(g.at - (r.at ?? 0)) < 0.01)
    )?.height
  const slip = (r: BookRow) =>
    session.plan.findings.find((f) => f.rule === 'slip' && f.field === rowPath(r, field))
  const wrong = (r: BookRow) => {
    const e = session.errorAt(rowPath(r, 'at'))
    return e ? wrongSays(e) : ''
  }
  /** Rows go on by the step that the last two make. */
  const suggest = $derived.by(() => {
    if (!rows.length) return 0
    const last = rows[rows.length - 1]!.at ?? 0
    const step = rows.length > 1 ? last - (rows[rows.length - 2]!.at ?? 0) : 0
    const end = session.value<number>(session.at('/length')) ?? Infinity
    return step > 0 && last < end ? Math.min(last + step, end) : undefined
  })
</script>

<PageHead
  {session}
  {book}
  title="{drops ? msg.common_string_drops : msg.common_rise_and_fall}, {session.run.name || session.run.id}"
  says={drops ? msg.book_page_from_a_tight_level_string : msg.book_page_from_each_point_to_the}
/>
<div class="mt-2 grid max-w-2xl grid-cols-[1fr_1fr_5.5rem_2.75rem] items-start gap-x-2 gap-y-1.5">
  <span class="label">{msg.common_at}</span><span class="label">{word}</span><span class="label"
    >{msg.common_height}</span
  ><span></span>
  {#each pageOf(rows, page) as { row: r, i } (`${i}/${rows.length}`)}
    {@const s = slip(r)}
    <TapeEntry
      label={msg.book_page_distance_of_row({ v1: i + 1 })}
      hideLabel
      long
      {units}
      value={r.at ?? 0}
      error={wrong(r)}
      oncommit={(mm) =>
        put(
          rows.map((q, k) => (k === i ? { ...q, at: mm ?? 0 } : q)).sort((a, b) => (a.at ?? 0) - (b.at ?? 0)),
          msg.book_page_row_to({ v1: i + 1, tape: tape(mm ?? 0, units) }),
        )}
    />
    <div class={s ? 'border-l-4 border-l-warn pl-1.5' : ''} data-slip={s ? i : undefined}>
      {#if !drops && i === 0}
        <p class="pt-2.5 text-pencil">{msg.book_page_starts_here}</p>
      {:else}
        <TapeEntry
          label={msg.common_of_row({ v1: drops ? msg.book_page_drop : msg.common_rise, v2: i + 1 })}
          field="reading"
          hideLabel
          {units}
          value={r[field] ?? 0}
          hint={s ? msg.common_stands_out_from_its_neighbours : ''}
          onpreview={(mm) => session.preview([{ path: rowPath(r, field), value: mm }], true)}
          oncommit={(mm) =>
            session.commit([{ path: rowPath(r, field), value: mm }], named(r.at ?? 0, mm ?? 0))}
        />
      {/if}
    </div>
    <span class="pt-2.5 text-[1.05rem]"
      >{#if height(r) !== undefined}<Fraction mm={height(r)!} {units} />{/if}</span
    >
    <button
      class="btn btn-plain btn-icon"
      aria-label={msg.book_page_take_out_the_row_at({ tape: tape(r.at ?? 0, units) })}
      onclick={() =>
        put(
          rows.filter((_, k) => k !== i),
          msg.book_page_row_at_taken_out({ tape: tape(r.at ?? 0, units) }),
        )}><X size={18} /></button
    >
  {/each}
  <NextRow
    {units}
    at={msg.book_page_distance_of_the_next_row}
    value={drops ? msg.book_page_drop_of_the_next_row : msg.book_page_rise_of_the_next_row}
    disabled={!session.run.length}
    {suggest}
    onrow={add}
  />
  <span></span>
</div>
<Pager count={rows.length} {page} onpage={(n) => (page = n)} />
