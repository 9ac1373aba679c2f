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

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const line = $derived(session.line)
  const runs = $derived(session.lineRuns)
  let trouble = $state('')

  async function change(op: Omit<Op, 'line'>, then?: () => void) {
    trouble = (await session.reshape({ line: line.id, ...op })) ?? ''
    if (!trouble) then?.()
  }
  function rename(path: string, old: string, e: Event & { currentTarget: HTMLInputElement }) {
    const name = e.currentTarget.value.trim()
    if (name !== old) session.commit([{ path, value: name }], `Named ${name || 'nothing'}`)
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
    <h2 id="runs-title" class="font-bold">Runs, in the order they are walked</h2>
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
                    >{c?.turn === undefined ? 'corner not known' : turnText(c)}</span
                  >{/if}
                <strong class="min-w-28">{title(r)}</strong>
                <span
                  >{#if r.length}<Fraction mm={r.length} {units} long />{:else}<em class="text-warn"
                      >no length yet</em
                    >{/if}</span
                >
                {#if r.gates.length}<span class="text-pencil"
                    >{r.gates.length} {r.gates.length === 1 ? 'gate' : 'gates'}</span
                  >{/if}
              </button>
            {:else}
              <div class="grid grid-cols-2 items-start gap-2 pr-2 sm:grid-cols-[1.2fr_1fr_1fr]">
                <div>
                  <label class="label mb-1" for="run-name">Run</label>
                  <input
                    id="run-name"
                    class="field font-semibold"
                    maxlength="120"
                    value={r.name}
                    onchange={(e) => rename(session.at('/name'), r.name, e)}
                  />
                </div>
                <div data-run-length><RunLength {session} label="Run length" /></div>
                <Pick
                  label="Taped"
                  value={session.choice(session.at('/taped'))}
                  options={session.catalogue.choices['taped']!}
                  onpick={(v) =>
                    session.commit([{ path: session.at('/taped'), value: v }], `${title(r)} taped ${v}`)}
                />
              </div>
              {#if r.correction}
                <p class="mt-1 pr-2">
                  Level it is <strong><Fraction mm={r.length} {units} long /></strong>: the slope takes
                  <Fraction mm={r.correction} {units} />. Gates and what is in the way are placed level.
                </p>
              {/if}
              <div class="mt-2 flex flex-wrap items-end gap-1.5 pr-2">
                <div class="w-40">
                  <TapeEntry
                    label="Split it at"
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
                  onclick={() => change({ do: 'join', run: r.id })}>Join with the next</button
                >
                <button
                  class="btn btn-icon"
                  aria-label="Earlier in the line"
                  disabled={i === 0}
                  onclick={() => change({ do: 'move run', run: r.id, after: runs[i - 2]?.id })}
                  ><ArrowUp size={18} /></button
                >
                <button
                  class="btn btn-icon"
                  aria-label="Later in the line"
                  disabled={i === runs.length - 1}
                  onclick={() => change({ do: 'move run', run: r.id, after: runs[i + 1]!.id })}
                  ><ArrowDown size={18} /></button
                >
                <button
                  class="btn btn-icon"
                  aria-label="Take {title(r)} away"
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
                  }}><Plus size={18} aria-hidden="true" />Run after it</button
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
            >Fence line{session.plan.lines.length > 1
              ? ` ${session.lineIndex + 1} of ${session.plan.lines.length}`
              : ''}</label
          >
          <input
            id="line-name"
            class="field"
            maxlength="120"
            placeholder="no name"
            value={line.name}
            onchange={(e) => rename(session.lineAt('/name'), line.name, e)}
          />
        </div>
        <button class="btn" onclick={() => change({ do: 'reverse' })}
          ><Repeat size={18} aria-hidden="true" />Reverse direction</button
        >
        <button
          class="btn"
          onclick={() => {
            const id = nextRun()
            void change({ do: 'add line' }, () => (session.runID = id))
          }}><Plus size={18} aria-hidden="true" />Line</button
        >
        {#if session.plan.lines.length > 1}
          <button
            class="btn"
            aria-label="Take this line away"
            onclick={() => change({ do: 'remove line' }, () => (session.runID = session.plan.runs[0]!.id))}
            ><Trash2 size={18} aria-hidden="true" /></button
          >
        {/if}
      </div>
      {#if session.plan.lines.length > 1}
        <p class="mt-2 flex flex-wrap gap-1.5" role="group" aria-label="Lines">
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

  <section class="grid min-w-0 grid-cols-1 content-start gap-4" aria-label="The line as a whole">
    <Choice
      label="The line is"
      value={line.closed ? 'closed' : 'open'}
      options={[
        { value: 'open', name: 'Open', costs: 'two end posts' },
        { value: 'closed', name: 'Closed', costs: 'the last run ends at the first post' },
      ]}
      onpick={(v) => change({ do: v === 'closed' ? 'close' : 'open' })}
    />
    <Closing {session} />
    <div class="grid grid-cols-2 gap-3">
      <LengthField
        {session}
        path="/site/frostDepth"
        label="Frost depth"
        hint="From the local office."
        optional
      />
      <NumberEntry
        label="Compass direction of run 1, °"
        hint="from north"
        value={session.value<number>(session.lineAt('/bearing'))}
        error={session.wrongAt(session.lineAt('/bearing'))}
        oncommit={(n) => session.commit([{ path: session.lineAt('/bearing'), value: n }], `Bearing ${n}°`)}
        onclear={() =>
          session.commit([{ path: session.lineAt('/bearing'), value: null }], 'Bearing not known')}
      />
      {#if session.plan.lines.length > 1}
        <LengthField
          {session}
          path={session.lineAt('/x')}
          label="East of zero by"
          hint="the first post"
          optional
        />
        <LengthField {session} path={session.lineAt('/y')} label="North of zero by" optional />
      {/if}
    </div>
  </section>
</div>
