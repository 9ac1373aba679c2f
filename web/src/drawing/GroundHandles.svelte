<script lang="ts">
  // The measured ground points: drag one up, down or along, or nudge it.
  import type { GroundPoint } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { short, tape } from '../lib/tape'
  import { dragging, snap } from './drag'
  import Measure from './Measure.svelte'
  import type { View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const points = $derived(session.value<GroundPoint[]>(session.at('/ground')) ?? [])
  const length = $derived(session.run.length)
  const path = (i: number) => session.at(`/ground/${i}`)
  const seen = $derived(
    points.map((p, i) => ({ p, i })).filter(({ p }) => p.at >= view.from && p.at <= view.to),
  )

  // A point stays between its neighbours and on the run.
  function place(i: number, at: number, height: number): GroundPoint {
    const gap = units.smallestMark
    const low = i > 0 ? points[i - 1]!.at + gap : 0
    const high = i < points.length - 1 ? points[i + 1]!.at - gap : length
    const put = { ...points[i]!, at: Math.min(Math.max(at, low), high), height }
    session.preview([{ path: path(i), value: put }])
    return put
  }
  const settle = (i: number, put: GroundPoint) =>
    session.commit(
      [{ path: path(i), value: put }],
      `Ground at ${tape(put.at, units)}: ${short(put.height, units)}`,
    )

  function drag(i: number) {
    let from: GroundPoint
    let now: GroundPoint
    return dragging({
      start: () => (from = now = points[i]!),
      move: (dx, dy) => {
        const along = Math.abs(dx) > 6 ? snap(from.at + dx / view.scale, 1 / view.scale, units) : from.at
        now = place(i, along, snap(from.height - dy / view.rise, 1 / view.rise, units))
      },
      end: () => settle(i, now),
      cancel: () => place(i, from.at, from.height),
    })
  }

  let waiting: ReturnType<typeof setTimeout> | undefined
  function key(e: KeyboardEvent, i: number) {
    const step = (e.shiftKey ? 16 : 1) * units.smallestMark
    const p = points[i]!
    const to = {
      ArrowUp: [p.at, p.height + step],
      ArrowDown: [p.at, p.height - step],
      ArrowLeft: [p.at - step, p.height],
      ArrowRight: [p.at + step, p.height],
    }[e.key]
    if (!to) return
    e.preventDefault()
    e.stopPropagation()
    const put = place(i, to[0]!, to[1]!)
    clearTimeout(waiting)
    waiting = setTimeout(() => settle(i, put), 500)
  }
</script>

{#each seen as { p, i } (i)}
  <g
    {@attach drag(i)}
    class="cursor-move touch-none"
    role="slider"
    tabindex="0"
    aria-label="Ground height at {tape(p.at, units)}"
    aria-orientation="vertical"
    aria-valuenow={p.height}
    aria-valuetext={short(p.height, units)}
    onkeydown={(e) => key(e, i)}
    data-ground={i}
  >
    <circle cx={view.x(p.at)} cy={view.y(p.height)} r="21" fill="transparent" />
    <circle
      cx={view.x(p.at)}
      cy={view.y(p.height)}
      r="7"
      class="fill-(--sheet) stroke-(--ink)"
      stroke-width="2.6"
    />
  </g>
  {#if seen.length < 2 || view.width / seen.length > 56}
    <Measure
      x={Math.min(Math.max(view.x(p.at), 24), view.width - 24)}
      y={view.y(p.height) + 26}
      {units}
      mm={p.height}
    />
  {/if}
{/each}
