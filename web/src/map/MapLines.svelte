<script lang="ts">
  // The fence lines from above: runs, posts, gates, and what crosses them.
  import type { PlannedRun } from '../gen/api'
  import type { Session } from '../lib/session.svelte'
  import { tape } from '../lib/tape'
  import Measure from '../drawing/Measure.svelte'
  import type { MapView, Spot } from './mapview.svelte'

  interface Props {
    session: Session
    view: MapView
    names?: boolean
    /** Pixels that names keep from the line. */
    clear?: number
  }
  let { session, view, names = true, clear = 15 }: Props = $props()
  const current = $derived(session.run.id)
  const on = (r: PlannedRun, at: number): Spot => {
    const t = r.length ? at / r.length : 0
    return { x: r.from.x + (r.to.x - r.from.x) * t, y: r.from.y + (r.to.y - r.from.y) * t }
  }
  const path = (a: Spot, b: Spot) =>
    `M${view.x(a).toFixed(1)} ${view.y(a).toFixed(1)}L${view.x(b).toFixed(1)} ${view.y(b).toFixed(1)}`
  /** Across the run at a station: so many pixels either way. */
  const across = (r: PlannedRun, at: number, half: number) => {
    const p = on(r, at)
    const [x, y] = [view.x(p), view.y(p)]
    const [dx, dy] = [view.x(r.to) - view.x(r.from), view.y(r.to) - view.y(r.from)]
    const l = Math.hypot(dx, dy) || 1
    return `M${x - (dy / l) * half} ${y + (dx / l) * half}L${x + (dy / l) * half} ${y - (dx / l) * half}`
  }
  const pixels = (r: PlannedRun) => Math.hypot(r.to.x - r.from.x, r.to.y - r.from.y) * view.scale
  /** Which hand of each line is outward: the right of one walked leftward round. */
  const outward = $derived.by(() => {
    const signs: Record<string, number> = {}
    for (const l of session.plan.lines) {
      const c = l.corners.map((k) => k.place)
      let area = 0 // twice, signed
      c.forEach((a, i) => {
        const b = c[(i + 1) % c.length]!
        area += a.x * b.y - b.x * a.y
      })
      signs[l.id] = area >= 0 ? 1 : -1
    }
    return signs
  })
  /** A run's name lies along it, on its outer side, with its length if there is room. */
  const label = (r: PlannedRun) => {
    const p = on(r, r.length / 2)
    const [dx, dy] = [view.x(r.to) - view.x(r.from), view.y(r.to) - view.y(r.from)]
    const l = Math.hypot(dx, dy) || 1
    const out = outward[r.line] ?? 1
    const turn = (Math.atan2(dy, dx) * 180) / Math.PI
    const upright = turn > 90 ? turn - 180 : turn <= -90 ? turn + 180 : turn
    const name = r.name || r.id
    const wide = (text: string) => text.length * (r.id === current ? 8.2 : 7)
    return {
      x: view.x(p) - (dy / l) * out * clear,
      y: view.y(p) + (dx / l) * out * clear,
      turn: upright,
      name: wide(name) < l + 30 ? name : '',
      long: wide(`${name} ${tape(r.length, session.units)}`) < l - 8,
    }
  }
</script>

{#each session.plan.runs as r (r.id)}
  <path
    d={path(r.from, r.to)}
    class={r.id === current ? 'stroke-(--mallow)' : 'stroke-(--ink)'}
    stroke-width={r.id === current ? 5 : 3}
    stroke-linecap="round"
  />
  {#each r.inTheWay as o (o.id)}
    {@const hue = o.colour ? `var(--service-${o.colour})` : 'var(--ink)'}
    {#if (o.to - o.from) * view.scale > 3}
      <path
        d={path(on(r, o.from), on(r, o.to))}
        stroke={hue}
        stroke-width="11"
        opacity="0.55"
        stroke-dasharray="4 3"
      />
    {:else}
      <path d={across(r, (o.from + o.to) / 2, 15)} stroke={hue} stroke-width="3.5" fill="none" />
    {/if}
  {/each}
  {#each r.gates as g (g.id)}
    {#each g.leaves as l (l.post)}
      {#each l.sides as s (s.side)}
        <path
          d="M{s.outline.map((p) => `${view.x(p).toFixed(1)} ${view.y(p).toFixed(1)}`).join('L')}z"
          class={s.struck || !s.clears
            ? 'fill-(--stop-wash) stroke-(--stop)'
            : 'fill-(--tape) stroke-(--line)'}
          stroke-width="1.2"
          stroke-dasharray="4 3"
          data-swing={g.id}
        />
      {/each}
    {/each}
    <path
      d={path(on(r, g.at - g.opening / 2), on(r, g.at + g.opening / 2))}
      class="stroke-(--sheet)"
      stroke-width="6"
    />
    <path d={across(r, g.at - g.opening / 2, 6)} class="stroke-(--ink)" stroke-width="2" fill="none" />
    <path d={across(r, g.at + g.opening / 2, 6)} class="stroke-(--ink)" stroke-width="2" fill="none" />
  {/each}
  {#each r.bays as b, i (b.label)}
    {#if (b.odd || b.pieceCut) && !b.gate}
      <path
        d={path(on(r, r.posts[i]!.station), on(r, r.posts[i + 1]!.station))}
        class="stroke-(--warn)"
        stroke-width="7"
        stroke-dasharray="3 3"
        opacity="0.9"
        fill="none"
      />
    {/if}
  {/each}
  {#if r.posts.length && pixels(r) / r.posts.length > 7}
    {#each r.posts as p (p.label)}
      {@const s = on(r, p.station)}
      {#if (p.holeWidth * view.scale) / 2 > 3.5}
        <circle
          cx={view.x(s)}
          cy={view.y(s)}
          r={(p.holeWidth * view.scale) / 2}
          class="fill-(--concrete) stroke-(--concrete-edge)"
          fill-opacity="0.75"
          stroke-width="1.2"
        />
      {/if}
      <rect
        x={view.x(s) - 2.6}
        y={view.y(s) - 2.6}
        width="5.2"
        height="5.2"
        class={p.inWay?.length ? 'fill-(--stop) stroke-(--stop)' : 'fill-(--timber) stroke-(--timber-edge)'}
      />
    {/each}
  {/if}
  {#if names}
    {@const at = label(r)}
    {#if at.name}
      <g transform="rotate({at.turn.toFixed(2)} {at.x.toFixed(1)} {at.y.toFixed(1)})">
        <Measure
          x={at.x}
          y={at.y + 5}
          units={session.units}
          words="{at.name}{at.long ? ' ' : ''}"
          mm={at.long ? r.length : undefined}
          long
          strong={r.id === current}
        />
      </g>
    {/if}
  {/if}
{/each}
