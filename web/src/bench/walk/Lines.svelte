<script lang="ts">
  // The lines of the job, run after run, with the corner before each.
  import ArrowDown from '@lucide/svelte/icons/arrow-down'
  import ArrowUp from '@lucide/svelte/icons/arrow-up'
  import Plus from '@lucide/svelte/icons/plus'
  import Repeat from '@lucide/svelte/icons/repeat'
  import Trash2 from '@lucide/svelte/icons/trash-2'
  import type { Op, PlannedRun } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import { turnText } from '../../lib/turn'
  import Choice from '../../parts/Choice.svelte'
  import Fraction from '../../parts/Fraction.svelte'
  import NumberEntry from '../../parts/NumberEntry.svelte'
  import Pick from '../../parts/Pick.svelte'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import RunLength from '../RunLength.svelte'
  import LengthField from '../LengthField.svelte'
  import Closing from './Closing.svelte'
  import CornerEntry from './CornerEntry.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const line = $derived(session.line)
  const runs = $derived(session.lineRuns)
  let trouble = $state('')
  // svelte-ignore state_referenced_locally
  let off = $state(session.units.system === 'metric' ? 450 : 457.2)

  async function change(op: Omit<Op, 'line'>, then?: () => void) {
    trouble = (await session.reshape({ line: line.id, ...op })) ?? ''
    if (!trouble) then?.()
  }
  function rename(path: string, old: string, e: Event & { currentTarget: HTMLInputElement }) {
    const name = e.currentTarget.value.trim()
    if (name !== old)
      session.commit([{ path, value: name }], msg.lines_named({ v1: name || msg.lines_nothing }))
  }
  const cornerOf = (i: number) => line.corners[i]
  const title = (r: PlannedRun) => r.name || r.id
  /** New runs get the next free id, which the server picks in the same way. */
  function nextRun(): string {
    let n = 1
    while (session.plan.runs.some((r) => r.id === `R${n}`)) n++
    return `R${n}`
  }
</script>

<div class="grid gap-x-8 gap-y-5 xl:grid-cols-[minmax(0,1fr)_21.5rem]">
  <section aria-labelledby="runs-title" class="min-w-0">
    <h2 id="runs-title" class="font-bold">{msg.lines_runs_in_the_order_they}</h2>
    {#if trouble}<p class="mt-1 border-l-4 border-l-stop bg-stop-wash px-3 py-1.5" role="alert">
        {trouble}
      </p>{/if}
    <ol class="mt-1 border-t border-rule">
      {#each runs as r, i (r.id)}
        {@const c = cornerOf(i)}
        {@const here = r.id === session.run.id}
        <li class="border-b border-rule">
          {#if here && (i > 0 || line.closed)}
            <div class="border-l-4 border-l-line pt-2 pb-3 pl-3">
              <CornerEntry
                {session}
                before={title(runs[(i + runs.length - 1) % runs.length]!)}
                check={i === 0}
              />
            </div>
          {/if}
          <div class={here ? 'border-l-4 border-l-mallow bg-sheet py-2 pl-3' : ''}>
            {#if !here}
              <button
                class="flex min-h-11 w-full flex-wrap items-center gap-x-4 px-1 py-1 text-left hover:bg-sheet"
                onclick={() => session.pickRun(r.id)}
              >
                {#if i > 0 || line.closed}<span class="min-w-28 text-pencil"
                    >{c?.turn === undefined ? msg.lines_corner_not_known : turnText(c)}</span
                  >{/if}
                <strong class="min-w-28">{title(r)}</strong>
                <span
                  >{#if r.length}<Fraction mm={r.length} {units} long />{:else}<em class="text-warn"
                      >{msg.lines_no_length_yet}</em
                    >{/if}</span
                >
                {#if r.gates.length}<span class="text-pencil"
                    >{r.gates.length} {r.gates.length === 1 ? 'gate' : 'gates'}</span
                  >{/if}
              </button>
            {:else}
              <div class="grid grid-cols-2 items-start gap-2 pr-2 sm:grid-cols-[1.2fr_1fr_1fr]">
                <div>
                  <label class="label mb-1" for="run-name">{msg.common_run}</label>
                  <input
                    id="run-name"
                    class="field font-semibold"
                    maxlength="120"
                    value={r.name}
                    onchange={(e) => rename(session.at('/name'), r.name, e)}
                  />
                </div>
                <div data-run-length><RunLength {session} label={msg.lines_run_length} /></div>
                <Pick
                  label={msg.lines_taped}
                  value={session.choice(session.at('/taped'))}
                  options={session.catalogue.choices['taped']!}
                  onpick={(v) =>
                    session.commit([{ path: session.at('/taped'), value: v }], `${title(r)} taped ${v}`)}
                />
              </div>
              {#if r.correction}
                <p class="mt-1 pr-2">
                  {msg.lines_level_it_is}
                  <strong><Fraction mm={r.length} {units} long /></strong>{msg.lines_the_slope_takes}
                  <Fraction mm={r.correction} {units} />{msg.lines_gates_and_what_is_in}
                </p>
              {/if}
              <div class="mt-2 flex flex-wrap items-end gap-1.5 pr-2">
                <div class="w-40">
                  <TapeEntry
                    label={msg.lines_split_it_at}
                    optional
                    long
                    {units}
                    value={undefined}
                    disabled={!r.length}
                    oncommit={(mm) => mm !== null && change({ do: 'split', run: r.id, at: mm })}
                  />
                </div>
                <button
                  class="btn"
                  disabled={i === runs.length - 1}
                  onclick={() => change({ do: 'join', run: r.id })}>{msg.lines_join_with_the_next}</button
                >
                <button
                  class="btn btn-icon"
                  aria-label={msg.lines_earlier_in_the_line}
                  disabled={i === 0}
                  onclick={() => change({ do: 'move run', run: r.id, after: runs[i - 2]?.id })}
                  ><ArrowUp size={18} /></button
                >
                <button
                  class="btn btn-icon"
                  aria-label={msg.lines_later_in_the_line}
                  disabled={i === runs.length - 1}
                  onclick={() => change({ do: 'move run', run: r.id, after: runs[i + 1]!.id })}
                  ><ArrowDown size={18} /></button
                >
                <button
                  class="btn btn-icon"
                  aria-label={msg.lines_take_away({ title: title(r) })}
                  disabled={runs.length === 1}
                  onclick={() => {
                    const next = runs[i + 1] ?? runs[i - 1]!
                    void change({ do: 'remove run', run: r.id }, () => (session.runID = next.id))
                  }}><Trash2 size={18} /></button
                >
                <button
                  class="btn"
                  onclick={() => {
                    const id = nextRun()
                    void change({ do: 'add run', run: r.id }, () => (session.runID = id))
                  }}><Plus size={18} aria-hidden="true" />{msg.lines_run_after_it}</button
                >
              </div>
            {/if}
          </div>
        </li>
      {/each}
    </ol>
    <div class="mt-4">
      <div class="flex flex-wrap items-end gap-2">
        <div class="min-w-40 flex-1">
          <label class="label mb-1" for="line-name"
            >{msg.lines_fence_line({
              v1:
                session.plan.lines.length > 1
                  ? msg.lines_of({ v1: session.lineIndex + 1, count: session.plan.lines.length })
                  : '',
            })}</label
          >
          <input
            id="line-name"
            class="field"
            maxlength="120"
            placeholder={msg.lines_no_name}
            value={line.name}
            onchange={(e) => rename(session.lineAt('/name'), line.name, e)}
          />
        </div>
        <button class="btn" onclick={() => change({ do: 'reverse' })}
          ><Repeat size={18} aria-hidden="true" />{msg.lines_reverse_direction}</button
        >
        <button
          class="btn"
          onclick={() => {
            const id = nextRun()
            void change({ do: 'add line' }, () => (session.runID = id))
          }}><Plus size={18} aria-hidden="true" />{msg.common_line}</button
        >
        {#if session.plan.lines.length > 1}
          <button
            class="btn"
            aria-label={msg.lines_take_this_line_away}
            onclick={() => change({ do: 'remove line' }, () => (session.runID = session.plan.runs[0]!.id))}
            ><Trash2 size={18} aria-hidden="true" /></button
          >
        {/if}
      </div>
      <fieldset class="mt-3 border-t border-rule pt-2">
        <legend class="label">{msg.lines_set_off}</legend>
        <p class="text-[0.95rem] text-pencil">{msg.lines_set_off_says}</p>
        <div class="mt-1 grid grid-cols-[1fr_auto_auto] items-end gap-2">
          <TapeEntry
            label={msg.lines_set_off_by}
            {units}
            value={off}
            oncommit={(mm) => mm !== null && (off = Math.max(0, mm))}
          />
          <button class="btn" onclick={() => change({ do: 'set off', at: off })}>{msg.lines_to_left}</button>
          <button class="btn" onclick={() => change({ do: 'set off', at: -off })}>{msg.lines_to_right}</button
          >
        </div>
      </fieldset>
      {#if session.plan.lines.length > 1}
        <p class="mt-2 flex flex-wrap gap-1.5" role="group" aria-label={msg.lines_lines}>
          {#each session.plan.lines as l, i (l.id)}
            <button
              class="btn min-h-9 pointer-coarse:min-h-11 {i === session.lineIndex
                ? 'border-ink font-bold'
                : ''}"
              aria-pressed={i === session.lineIndex}
              onclick={() => session.pickRun(session.plan.runs[l.first]!.id)}>{l.name || l.id}</button
            >
          {/each}
        </p>
      {/if}
    </div>
  </section>

  <section class="grid min-w-0 grid-cols-1 content-start gap-4" aria-label={msg.lines_the_line_as_a_whole}>
    <Choice
      label={msg.lines_the_line_is}
      value={line.closed ? 'closed' : 'open'}
      options={[
        { value: 'open', name: msg.common_open, costs: msg.lines_two_end_posts },
        { value: 'closed', name: msg.common_closed, costs: msg.lines_the_last_run_ends_at },
      ]}
      onpick={(v) => change({ do: v === 'closed' ? 'close' : 'open' })}
    />
    <Closing {session} />
    <div class="grid grid-cols-2 gap-3">
      <LengthField
        {session}
        path="/site/frostDepth"
        label={msg.common_frost_depth}
        hint={msg.lines_from_the_local_office}
        optional
      />
      <NumberEntry
        label={msg.lines_compass_direction_of_run_1}
        hint={msg.lines_from_north}
        value={session.value<number>(session.lineAt('/bearing'))}
        error={session.wrongAt(session.lineAt('/bearing'))}
        oncommit={(n) =>
          session.commit([{ path: session.lineAt('/bearing'), value: n }], msg.lines_bearing({ v1: n }))}
        onclear={() =>
          session.commit([{ path: session.lineAt('/bearing'), value: null }], msg.lines_bearing_not_known)}
      />
      {#if session.plan.lines.length > 1}
        <LengthField
          {session}
          path={session.lineAt('/x')}
          label={msg.lines_east_of_zero_by}
          hint={msg.lines_the_first_post}
          optional
        />
        <LengthField {session} path={session.lineAt('/y')} label={msg.lines_north_of_zero_by} optional />
      {/if}
    </div>
  </section>
</div>
