<script lang="ts">
  // The strings from above: each run's string with its ties, the constant to
  // hold, and the diagonals to check. A string lies so near the posts that its
  // offset is drawn wider than it is; the printed measure is the true one.
  import type { PlannedRun } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import Measure from '../../drawing/Measure.svelte'
  import type { MapView, Spot } from '../../map/mapview.svelte'

  interface Props {
    session: Session
    view: MapView
    /** Larger print, for paper. */
    large?: boolean
  }
  let { session, view, large = false }: Props = $props()
  const units = $derived(session.units)
  const LEAST = 11 // pixels from the posts' centres

  /** A run's string on the drawing: its two ties, and the way off the line. */
  const string = (r: PlannedRun) => {
    const s = r.string!
    const [ax, ay, bx, by] = [view.x(r.from), view.y(r.from), view.x(r.to), view.y(r.to)]
    const l = Math.hypot(bx - ax, by - ay) || 1
    const [ux, uy] = [(bx - ax) / l, (by - ay) / l]
    // The left of the walk is up the screen's other way: y grows downward.
    const sign = s.face === 'left' ? 1 : -1
    const [nx, ny] = [uy * sign, -ux * sign]
    const off = s.position === 'sight' ? 0 : Math.max(s.toCentre * view.scale, LEAST)
    const beyond = Math.max(s.beyond * view.scale, 16)
    return {
      a: { x: ax - ux * beyond + nx * off, y: ay - uy * beyond + ny * off },
      b: { x: bx + ux * beyond + nx * off, y: by + uy * beyond + ny * off },
      n: { x: nx, y: ny },
      u: { x: ux, y: uy },
      long: l,
    }
  }
  const board = (p: Spot, n: Spot, u: Spot) =>
    `M${p.x - n.x * 9} ${p.y - n.y * 9}L${p.x + n.x * 9} ${p.y + n.y * 9}` +
    `M${p.x - n.x * 7} ${p.y - n.y * 7}l${u.x * 5} ${u.y * 5}M${p.x + n.x * 7} ${p.y + n.y * 7}l${u.x * 5} ${u.y * 5}`
  /** A place on a line of the drawing, and how words lie along it upright. */
  const along = (a: Spot, b: Spot, part: number, drawn = false) => {
    const [ax, ay, bx, by] = drawn ? [a.x, a.y, b.x, b.y] : [view.x(a), view.y(a), view.x(b), view.y(b)]
    const turn = (Math.atan2(by - ay, bx - ax) * 180) / Math.PI
    return {
      x: ax + (bx - ax) * part,
      y: ay + (by - ay) * part,
      turn: turn > 90 ? turn - 180 : turn <= -90 ? turn + 180 : turn,
    }
  }
  const corners = $derived(session.line.corners.filter((c) => c.square && c.before && c.after))
  const pixels = (a: Spot, b: Spot) => Math.hypot(view.x(a) - view.x(b), view.y(a) - view.y(b))
</script>

{#each corners as c, i (i)}
  {@const sq = c.square!}
  {#if pixels(sq.a, sq.b) > 40}
    <path
      d="M{view.x(sq.a)} {view.y(sq.a)}L{view.x(sq.b)} {view.y(sq.b)}"
      class="stroke-(--ink)"
      stroke-width="1.3"
      stroke-dasharray="5 4"
    />
    {@const at = along(sq.a, sq.b, 0.26)}
    <g transform="rotate({at.turn.toFixed(2)} {at.x.toFixed(1)} {at.y.toFixed(1)})">
      <Measure x={at.x} y={at.y + 5} {units} mm={sq.diagonal} long strong={large} />
    </g>
    {#if pixels(sq.a, c.place) > 70}
      {#each [sq.a, sq.b] as end, k (k)}
        <circle cx={view.x(end)} cy={view.y(end)} r="3" class="fill-(--ink)" />
      {/each}
    {/if}
  {/if}
{/each}
{#each session.plan.runs.filter((r) => r.string && r.line === session.line.id) as r (r.id)}
  {@const s = string(r)}
  {#if r.string!.position !== 'sight'}
    <path
      d="M{s.a.x} {s.a.y}L{s.b.x} {s.b.y}"
      class="stroke-(--mallow)"
      stroke-width="1.8"
      data-string={r.id}
    />
    {#each [[s.a, -1], [s.b, 1]] as const as [tie, way], k (k)}
      {#if r.string!.ends === 'boards'}
        <path
          d={board(tie, s.n, { x: s.u.x * way, y: s.u.y * way })}
          class="stroke-(--ink)"
          stroke-width="2.6"
          fill="none"
        />
      {:else}
        <circle cx={tie.x} cy={tie.y} r="3.6" class="fill-(--ink)" />
      {/if}
    {/each}
    {#if s.long > 110}
      {@const at = along(s.a, s.b, 0.76, true)}
      <g transform="rotate({at.turn.toFixed(2)} {at.x.toFixed(1)} {at.y.toFixed(1)})">
        <Measure
          x={at.x}
          y={at.y + 5}
          {units}
          words={r.string!.toFace > 0 ? 'hold ' : 'on the faces'}
          mm={r.string!.toFace > 0 ? r.string!.toFace : undefined}
          strong={large}
        />
      </g>
    {/if}
  {:else}
    <path
      d="M{s.a.x} {s.a.y}L{s.b.x} {s.b.y}"
      class="stroke-(--ink)"
      stroke-width="1.4"
      stroke-dasharray="2 5"
      data-string={r.id}
    />
  {/if}
{/each}
