<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus'
  import X from '@lucide/svelte/icons/x'
  import type { GroundPoint } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { short, tape } from '../lib/tape'
  import LengthField from './LengthField.svelte'
  import TapeEntry from '../parts/TapeEntry.svelte'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const points = $derived(session.value<GroundPoint[]>(session.at('/ground')) ?? [])
  const length = $derived(session.value<number>(session.at('/length')))
  let at = $state<number | undefined>(undefined)

  function put(list: GroundPoint[], what: string) {
    session.commit([{ path: session.at('/ground'), value: list }], what)
  }
  function add(height: number) {
    if (at === undefined) return
    const point = { at, height }
    const others = points.filter((p) => Math.abs(p.at - point.at) > 0.001)
    put(
      [...others, point].sort((a, b) => a.at - b.at),
      `Ground at ${tape(point.at, units)}: ${short(height, units)}`,
    )
    at = undefined
  }
  const remove = (i: number) =>
    put(
      points.filter((_, k) => k !== i),
      `Ground at ${tape(points[i]!.at, units)} taken out`,
    )
  const wrong = (i: number) => {
    const e = session.errorAt(session.at(`/ground/${i}/at`))
    return e ? `Given ${e.given}; allowed is ${e.allowed}.` : ''
  }
</script>

<div class="grid max-w-5xl gap-x-8 gap-y-5 md:grid-cols-[18rem_1fr]">
  <div class="grid content-start gap-4">
    <LengthField
      {session}
      path={session.at('/length')}
      label="Run length"
      long
      hint="Level, centre to centre of the end posts."
    />
    <LengthField
      {session}
      path="/site/frostDepth"
      label="Frost depth"
      hint="From the local building office."
    />
  </div>
  <div>
    <h2 class="font-bold">Ground</h2>
    <p class="text-pencil">
      Heights over any one mark, in order along the run. Straight in between. Drag a point in the drawing, or
      type.
    </p>
    <div class="mt-2 grid max-w-xl grid-cols-[1fr_1fr_2.75rem] gap-x-2 gap-y-1.5">
      <span class="label">At</span><span class="label">Height</span><span></span>
      {#each points as p, i (`${i}/${points.length}`)}
        <TapeEntry
          label="Station of ground point {i + 1}"
          hideLabel
          long
          {units}
          value={p.at}
          error={wrong(i)}
          oncommit={(mm) =>
            put(
              points.map((q, k) => (k === i ? { ...q, at: mm ?? 0 } : q)).sort((a, b) => a.at - b.at),
              `Ground point ${i + 1} to ${tape(mm ?? 0, units)}`,
            )}
        />
        <TapeEntry
          label="Height of ground point {i + 1}"
          hideLabel
          {units}
          value={p.height}
          onpreview={(mm) => session.preview([{ path: session.at(`/ground/${i}/height`), value: mm }], true)}
          oncommit={(mm) =>
            session.commit(
              [{ path: session.at(`/ground/${i}/height`), value: mm }],
              `Ground at ${tape(p.at, units)}: ${short(mm ?? 0, units)}`,
            )}
        />
        <button
          class="btn btn-plain btn-icon"
          aria-label="Take out the point at {tape(p.at, units)}"
          onclick={() => remove(i)}><X size={18} /></button
        >
      {/each}
      <TapeEntry
        label="Station of a new ground point"
        hideLabel
        optional
        long
        {units}
        value={at}
        disabled={length === undefined}
        oncommit={(mm) => (at = mm ?? undefined)}
      />
      <TapeEntry
        label="Height of the new ground point"
        hideLabel
        optional
        {units}
        value={undefined}
        disabled={at === undefined}
        oncommit={(mm) => mm !== null && add(mm)}
      />
      <span class="grid place-items-center text-pencil" title="New point"
        ><Plus size={18} aria-hidden="true" /></span
      >
    </div>
  </div>
</div>
