<script lang="ts">
  // A page of level and rod: set-ups, turning points, and the closing check.
  import X from '@lucide/svelte/icons/x'
  import type { Book, BookRow } from '../../gen/api'
  import { at as pathOf, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { short, tape } from '../../lib/tape'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import LengthField from '../LengthField.svelte'
  import Pager from '../Pager.svelte'
  import { PAGE, pageOf } from '../page'
  import PageHead from './PageHead.svelte'
  import { scrolls } from '../../lib/scrolls'
  import * as msg from '../../gen/messages'

  let { session, book }: { session: Session; book: Book } = $props()
  const units = $derived(session.units)
  const path = $derived(pathOf(session.lineAt('/books'), book.id))
  const rows = $derived(book.rows ?? [])
  const check = $derived(session.line.books.find((b) => b.book === book.id))
  const runName = (id?: string) => session.plan.runs.find((r) => r.id === id)?.name || id
  const pointName = (r: BookRow) =>
    r.run ? `${runName(r.run)} ${tape(r.at ?? 0, units)}` : r.mark || 'a mark'

  let page = $state(0)
  function put(list: BookRow[], what: string) {
    session.commit([{ path: `${path}/rows`, value: list }], what)
  }
  /** The set-ups' lines of sight stand in the rows that look back. */
  const sights = $derived.by(() => {
    let k = 0
    return rows.map((r) => (r.back !== undefined ? check?.setups[k++] : undefined))
  })

  // The next reading.
  const last = $derived(rows[rows.length - 1])
  const canBack = $derived(!last || (last.fore !== undefined && last.back === undefined))
  let chosen = $state<'back' | 'side' | 'fore' | null>(null)
  const look = $derived(canBack ? 'back' : chosen === 'fore' ? 'fore' : 'side')
  let run = $state('')
  const on = $derived(run || session.run.id)
  let at = $state<number | undefined>(undefined)
  let mark = $state('')
  function add(mm: number) {
    if (look === 'back' && last) {
      put([...rows.slice(0, -1), { ...last, back: mm }], msg.rod_page_back({ short: short(mm, units) }))
    } else {
      const place = on === 'mark' ? { mark: mark || 'a mark' } : { run: on, at: at ?? 0 }
      put([...rows, { id: newID(rows, 'w'), ...place, [look]: mm }], `${look} ${short(mm, units)}`)
    }
    page = Math.floor(rows.length / PAGE)
    chosen = null
    at = undefined
  }
  const rowPath = (r: BookRow, name: string) => pathOf(path, 'rows', r.id!, name)
  const columns = ['back', 'side', 'fore'] as const
</script>

<PageHead
  {session}
  {book}
  title={book.name || msg.common_level_survey}
  says={msg.rod_page_back_on_a_point_that}
/>
{#if check && rows.length > 1}
  <dl
    class="mt-2 flex flex-wrap gap-x-6 gap-y-1 border-l-4 bg-sheet px-3 py-2 {check.closed &&
    Math.abs(check.error) > check.allowance
      ? 'border-l-warn'
      : 'border-l-good'}"
    data-testid="rod-check"
  >
    <div>
      <dt class="label">{msg.rod_page_backsights}</dt>
      <dd class="text-[1.1rem] font-semibold"><Fraction mm={check.sumBack} {units} long /></dd>
    </div>
    <div>
      <dt class="label">{msg.rod_page_foresights}</dt>
      <dd class="text-[1.1rem] font-semibold"><Fraction mm={check.sumFore} {units} long /></dd>
    </div>
    <div>
      <dt class="label">{msg.rod_page_set_ups}</dt>
      <dd class="text-[1.1rem] font-semibold">{check.setups.length}</dd>
    </div>
    {#if check.closed}
      <div>
        <dt class="label">{msg.rod_page_closes}</dt>
        <dd
          class="text-[1.1rem] font-semibold {Math.abs(check.error) > check.allowance
            ? 'text-warn'
            : 'text-good'}"
        >
          <Fraction mm={Math.abs(check.error)} {units} />
          {check.error >= 0 ? 'high' : 'low'}
        </dd>
      </div>
      <div>
        <dt class="label">{msg.rod_page_allowed}</dt>
        <dd class="text-[1.1rem] font-semibold"><Fraction mm={check.allowance} {units} /></dd>
      </div>
    {:else}
      <div class="self-center text-pencil">
        {msg.rod_page_not_closed_end_on_the}
      </div>
    {/if}
  </dl>
{/if}
<div {@attach scrolls} class="mt-2 overflow-x-auto border border-line bg-sheet">
  <table class="sheet-table tight w-full">
    <thead
      ><tr
        ><th scope="col">{msg.rod_page_point}</th><th scope="col">{msg.rod_page_backsight}</th><th scope="col"
          >{msg.rod_page_intermediate}</th
        ><th scope="col">{msg.rod_page_foresight}</th><th scope="col">{msg.rod_page_sight}</th><th scope="col"
          >{msg.rod_page_over_first}</th
        ><th scope="col"><span class="sr-only">{msg.rod_page_take_out}</span></th></tr
      ></thead
    >
    <tbody>
      {#each pageOf(rows, page) as { row: r, i } (`${i}/${rows.length}`)}
        {@const slip = session.plan.findings.some((f) => f.rule === 'slip' && f.field === rowPath(r, 'side'))}
        <tr class={slip ? 'bg-warn-wash' : ''}>
          <td class="w-36 font-semibold whitespace-normal">{pointName(r)}</td>
          {#each columns as c (c)}
            <td class="min-w-29">
              {#if r[c] !== undefined}
                <TapeEntry
                  label={msg.common_of_row({ v1: c, v2: i + 1 })}
                  field="reading"
                  hideLabel
                  {units}
                  value={r[c]}
                  onpreview={(mm) => session.preview([{ path: rowPath(r, c), value: mm }], true)}
                  oncommit={(mm) =>
                    session.commit(
                      [{ path: rowPath(r, c), value: mm }],
                      `${c} on ${pointName(r)}: ${short(mm ?? 0, units)}`,
                    )}
                />
              {/if}
            </td>
          {/each}
          <td
            >{#if sights[i] !== undefined}<Fraction mm={sights[i]!} {units} />{/if}</td
          >
          <td class="font-semibold"
            >{#if check?.heights[i] !== undefined}<Fraction mm={check.heights[i]} {units} />{/if}</td
          >
          <td
            ><button
              class="btn btn-plain btn-icon"
              aria-label={msg.rod_page_take_out_row({ v1: i + 1 })}
              onclick={() =>
                put(
                  rows.filter((_, k) => k !== i),
                  msg.rod_page_row_taken_out({ v1: i + 1 }),
                )}><X size={18} /></button
            ></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<Pager count={rows.length} {page} onpage={(n) => (page = n)} />
<fieldset class="mt-3 grid max-w-4xl grid-cols-2 items-start gap-2 sm:grid-cols-[1fr_1.2fr_1fr_1fr]">
  <legend class="label">{msg.rod_page_the_next_reading}</legend>
  <Pick
    label={msg.rod_page_it_is_the}
    value={look}
    options={canBack
      ? [{ value: 'back', name: msg.rod_page_backsight_first_of_a }]
      : [
          { value: 'side', name: msg.rod_page_an_intermediate },
          { value: 'fore', name: msg.rod_page_foresight_last_of_the },
        ]}
    onpick={(v) => (chosen = v as typeof chosen)}
  />
  {#if look === 'back' && last}
    <p class="pt-8">{msg.rod_page_on({ pointName: pointName(last) })}</p>
  {:else}
    <Pick
      label={msg.rod_page_rod_stands_on}
      value={on}
      options={[
        ...session.lineRuns.map((r) => ({ value: r.id, name: r.name || r.id })),
        { value: 'mark', name: msg.rod_page_a_mark_beside_the_line },
      ]}
      onpick={(v) => (run = v)}
    />
    {#if on === 'mark'}
      <div>
        <label class="label mb-1" for="rod-mark">{msg.rod_page_what_it_is}</label>
        <input
          id="rod-mark"
          class="field"
          maxlength="80"
          bind:value={mark}
          placeholder={msg.rod_page_door_sill}
        />
      </div>
    {:else}
      <TapeEntry
        label={msg.common_at}
        long
        optional
        {units}
        value={at}
        oncommit={(mm) => (at = mm ?? undefined)}
      />
    {/if}
  {/if}
  <TapeEntry
    label={msg.rod_page_reading}
    field="reading"
    optional
    {units}
    value={undefined}
    disabled={look !== 'back' && on !== 'mark' && at === undefined}
    oncommit={(mm) => mm !== null && add(mm)}
  />
</fieldset>
<div class="mt-4 grid max-w-4xl grid-cols-2 items-start gap-3 sm:grid-cols-4">
  <LengthField {session} path="{path}/start" label={msg.rod_page_height_of_the_first_point} optional />
  <LengthField {session} path="{path}/close" label={msg.rod_page_height_of_the_last_point} optional />
  <NumberEntry
    label={msg.rod_page_sight_climbs_mm_per_m}
    value={book.tilt ?? 0}
    hint={msg.rod_page_by_the_two_peg_test}
    error={session.wrongAt(`${path}/tilt`)}
    oncommit={(n) =>
      session.commit([{ path: `${path}/tilt`, value: n }], msg.rod_page_level_s_tilt_mm_m({ v1: n }))}
  />
  <label class="flex min-h-11 items-center gap-2.5 font-medium sm:mt-6">
    <input
      type="checkbox"
      class="size-5 accent-(--mallow)"
      checked={book.spread ?? false}
      onchange={(e) =>
        session.commit(
          [{ path: `${path}/spread`, value: e.currentTarget.checked }],
          msg.rod_page_closing_error_spread,
        )}
    />
    {msg.rod_page_spread_the_closing_error}
  </label>
  <div class="col-span-2 sm:col-span-4">
    <Choice
      label={msg.rod_page_closing_error_allowed}
      value={session.choice(`${path}/allow`)}
      options={session.catalogue.choices['books/allow']!}
      onpick={(v) =>
        session.commit([{ path: `${path}/allow`, value: v }], msg.rod_page_allowed_by({ v1: v }))}
    />
  </div>
</div>
