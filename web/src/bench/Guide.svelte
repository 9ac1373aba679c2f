<script lang="ts">
  // The first things to enter, in the order that they are measured.
  import { tick } from 'svelte'
  import type { GroundPoint } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { short } from '../lib/tape'
  import TapeEntry from '../parts/TapeEntry.svelte'
  import RunLength from './RunLength.svelte'
  import * as msg from '../gen/messages'

  let { session, shown = $bindable(false) }: { session: Session; shown?: boolean } = $props()
  const units = $derived(session.units)
  const missing = $derived(
    session.plan.findings
      .filter((f) => f.severity === 'missing' && f.rule !== 'corner-missing')
      .filter((f) => !f.place.run || f.place.run === session.run.id)
      .map((f) => f.rule),
  )
  const length = $derived(session.value<number>(session.at('/length')))
  const ground = $derived(session.value<GroundPoint[]>(session.at('/ground')) ?? [])
  const frost = $derived(session.value<number>('/site/frostDepth'))
  const fall = $derived(ground.length ? ground[ground.length - 1]!.height - ground[0]!.height : undefined)
  const done = $derived([length !== undefined, ground.length > 0, frost !== undefined])
  let box = $state<HTMLElement>()
  // Stays until the user moves on, so that the last entry does not vanish
  // under the hands.
  let dismissed = $state('')
  $effect(() => {
    // Only of a job in which nothing is measured yet: later runs are added on the bench.
    if (missing.includes('length-missing') && session.plan.runs.length === 1 && dismissed !== session.run.id)
      shown = true
  })

  async function next() {
    await tick()
    box?.querySelector<HTMLInputElement>('li[data-open="true"] input')?.focus()
  }
  $effect(() => {
    if (shown) void next()
  })
  async function set(path: string, value: unknown, what: string) {
    session.commit([{ path, value }], what)
    await next()
  }
  const example = $derived(
    units.system === 'metric' ? msg.guide_such_as_22_68_metres : msg.guide_such_as_131_5_feet,
  )
</script>

{#if shown}
  <section
    bind:this={box}
    class="mb-5 max-w-3xl border-2 border-ink bg-sheet p-4"
    aria-labelledby="guide-title"
  >
    <div class="flex items-start justify-between gap-3">
      <h2 id="guide-title" class="text-[1.15rem] font-bold">
        {missing.length ? msg.guide_first_three_things_to_measure : msg.guide_that_is_enough_to_plan}
      </h2>
      <button
        class="btn"
        class:btn-main={!missing.length}
        onclick={() => {
          dismissed = session.run.id
          shown = false
        }}>{missing.length ? msg.guide_later : msg.guide_go_on}</button
      >
    </div>
    <ol class="mt-3 grid gap-3 sm:grid-cols-3">
      <li data-open={!done[0]}>
        <RunLength
          {session}
          label={msg.guide_1_how_long_is_the}
          hint={msg.guide_centre_to_centre_of_the({ example })}
          ondone={() => void next()}
        />
      </li>
      <li data-open={done[0] && !done[1]}>
        <TapeEntry
          label={msg.guide_2_how_does_the_ground}
          hint={msg.guide_height_of_the_far_end}
          value={fall}
          field="ground/height"
          {units}
          disabled={length === undefined}
          oncommit={(mm) =>
            set(
              session.at('/ground'),
              [
                { at: 0, height: 0 },
                { at: length, height: mm },
              ],
              msg.guide_ground_at_the_far_end({ short: short(mm ?? 0, units) }),
            )}
        />
      </li>
      <li data-open={done[0] && done[1] && !done[2]}>
        <TapeEntry
          label={msg.guide_3_how_deep_does_the}
          hint={msg.guide_the_local_building_office_knows}
          value={frost}
          field="/site/frostDepth"
          {units}
          error={session.wrongAt('/site/frostDepth')}
          oncommit={(mm) =>
            set('/site/frostDepth', mm, msg.guide_frost_depth({ short: short(mm ?? 0, units) }))}
        />
      </li>
    </ol>
    {#if missing.includes('length-missing')}
      <button
        class="btn btn-plain mt-2 px-0 underline"
        onclick={() => {
          session.nav.parts.walk = 'files'
          dismissed = session.run.id
          shown = false
        }}>{msg.guide_or_read_points_or_a}</button
      >
    {/if}
  </section>
{/if}
