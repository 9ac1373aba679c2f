<script lang="ts">
  // Ground heights of the run.
  import { wrongSays } from '../../lib/wrong'
  import X from '@lucide/svelte/icons/x'
  import type { GroundPoint } from '../../gen/api'
  import { at, newID } from '../../lib/doc'
  import type { Session } from '../../lib/session.svelte'
  import { short, tape } from '../../lib/tape'
  import TapeEntry from '../../parts/TapeEntry.svelte'
  import Pager from '../Pager.svelte'
  import { PAGE, pageOf } from '../page'
  import NextRow from './NextRow.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const points = $derived(session.value<GroundPoint[]>(session.at('/ground')) ?? [])
  const length = $derived(session.value<number>(session.at('/length')))

  let page = $state(0)
  function put(list: GroundPoint[], what: string) {
    session.commit([{ path: session.at('/ground'), value: list }], what)
  }
  function add(station: number, height: number) {
    const others = points.filter((p) => Math.abs(p.at - station) > 0.001)
    page = Math.floor(others.filter((p) => p.at < station).length / PAGE)
    put(
      [...others, { id: newID(points, 'h'), at: station, height }].sort((a, b) => a.at - b.at),
      msg.common_ground_at({ tape: tape(station, units), short: short(height, units) }),
    )
  }
  const path = (p: GroundPoint, name: string) => at(session.at('/ground'), p.id!, name)
  const wrong = (p: GroundPoint) => {
    const e = session.errorAt(path(p, 'at'))
    return e ? wrongSays(e) : ''
  }
  const slip = (p: GroundPoint) =>
    session.plan.findings.some((f) => f.rule === 'slip' && f.field === path(p, 'height'))
</script>

<h2 class="font-bold">{msg.common_ground_heights}</h2>
<p class="text-pencil">
  {msg.heights_over_any_one_mark_in}
</p>
<div class="mt-2 grid max-w-xl grid-cols-[1fr_1fr_2.75rem] gap-x-2 gap-y-1.5">
  <span class="label">{msg.common_at}</span><span class="label">{msg.common_height}</span><span></span>
  {#each pageOf(points, page) as { row: p, i } (`${i}/${points.length}`)}
    <TapeEntry
      label={msg.heights_distance_of_ground_point({ v1: i + 1 })}
      hideLabel
      long
      {units}
      value={p.at}
      error={wrong(p)}
      oncommit={(mm) =>
        put(
          points.map((q, k) => (k === i ? { ...q, at: mm ?? 0 } : q)).sort((a, b) => a.at - b.at),
          msg.heights_ground_point_to({ v1: i + 1, tape: tape(mm ?? 0, units) }),
        )}
    />
    <TapeEntry
      label={msg.heights_height_of_ground_point({ v1: i + 1 })}
      field="ground/height"
      hideLabel
      {units}
      value={p.height}
      hint={slip(p) ? msg.common_stands_out_from_its_neighbours : ''}
      onpreview={(mm) => session.preview([{ path: path(p, 'height'), value: mm }], true)}
      oncommit={(mm) =>
        session.commit(
          [{ path: path(p, 'height'), value: mm }],
          msg.common_ground_at({ tape: tape(p.at, units), short: short(mm ?? 0, units) }),
        )}
    />
    <button
      class="btn btn-plain btn-icon"
      aria-label={msg.heights_take_out_the_point_at({ tape: tape(p.at, units) })}
      onclick={() =>
        put(
          points.filter((_, k) => k !== i),
          msg.heights_ground_at_taken_out({ tape: tape(p.at, units) }),
        )}><X size={18} /></button
    >
  {/each}
  <NextRow
    {units}
    at={msg.heights_distance_of_a_new_ground}
    value="Height of the new ground point"
    disabled={length === undefined}
    onrow={add}
  />
</div>
<Pager count={points.length} {page} onpage={(n) => (page = n)} />
