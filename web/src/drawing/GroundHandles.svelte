<script lang="ts">
  // The measured ground points: drag one up or down, or nudge it, and the
  // entry that it comes from follows, a drop or a rod reading the other way
  // about. A height at a station goes along the run too.
  import type { PlannedGround } from '../gen/api'
  import { Later } from '../lib/later'
  import type { Session } from '../lib/session.svelte'
  import type { Change } from '../lib/doc'
  import { short, tape } from '../lib/tape'
  import { dragging, snap } from './drag'
  import Measure from './Measure.svelte'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  let { session, view }: { session: Session; view: View } = $props()
  const units = $derived(session.units)
  const run = $derived(session.run)
  const inSight = $derived(run.ground.filter((p) => p.path && p.at >= view.from && p.at <= view.to))
  /** More than fingers can tell apart are not offered: zoom in on them. */
  const MOST = 120
  const seen = $derived(inSight.length > MOST ? [] : inSight)
  /** Ground heights of this run, taped level, can be moved along it. */
  const own = (p: PlannedGround) => p.path!.startsWith(`${run.path}/ground/`)
  const station = (p: PlannedGround) => p.path!.replace(/\/height$/, '/at')
  const slides = (p: PlannedGround) => own(p) && session.choice(session.at('/taped')) === 'level'

  interface Put {
    at: number
    height: number
  }
  /** What a point's new place makes of its entry. */
  function changes(p: PlannedGround, entry: number, put: Put): Change[] {
    const out: Change[] = [{ path: p.path!, value: entry + (p.sign ?? 1) * (put.height - p.height) }]
    if (slides(p)) out.push({ path: station(p), value: put.at })
    return out
  }
  /** A point stays between its neighbours and on the run. */
  function within(p: PlannedGround, put: Put): Put {
    if (!slides(p)) return { at: p.at, height: put.height }
    const gap = units.smallestMark
    const others = run.ground.filter((q) => q.path !== p.path)
    const low = Math.max(0, ...others.filter((q) => q.at < p.at).map((q) => (q.path ? q.at + gap : 0)))
    const high = Math.min(
      run.length,
      ...others.filter((q) => q.at > p.at).map((q) => (q.path ? q.at - gap : run.length)),
    )
    return { at: Math.min(Math.max(put.at, low), high), height: put.height }
  }
  const said = (put: Put) =>
    msg.common_ground_at({ tape: tape(put.at, units), short: short(put.height, units) })

  function drag(path: string) {
    let from: PlannedGround
    let entry = 0
    let now: Put
    return dragging({
      start: () => {
        from = run.ground.find((p) => p.path === path)!
        now = from
        entry = session.value<number>(path) ?? 0
      },
      move: (dx, dy) => {
        const along = Math.abs(dx) > 6 ? snap(from.at + dx / view.scale, 1 / view.scale, units) : from.at
        now = within(from, { at: along, height: snap(from.height - dy / view.rise, 1 / view.rise, units) })
        session.preview(changes(from, entry, now))
      },
      end: () => session.commit(changes(from, entry, now), said(now)),
      cancel: () => session.preview(changes(from, entry, from)),
    })
  }

  /** One for each point, kept: a drag goes on while plans come and points are other objects. */
  const grips: Record<string, ReturnType<typeof drag>> = {}
  const grip = (path: string) => (grips[path] ??= drag(path))

  let nudged: { from: PlannedGround; entry: number; now: Put } | null = null
  const later = new Later(() => {
    const n = nudged
    nudged = null
    if (n) session.commit(changes(n.from, n.entry, n.now), said(n.now))
  })
  function key(e: KeyboardEvent, p: PlannedGround) {
    const step = (e.shiftKey ? 16 : 1) * units.smallestMark
    const way = { ArrowUp: [0, 1], ArrowDown: [0, -1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }[e.key]
    if (!way) return
    e.preventDefault()
    e.stopPropagation()
    if (nudged?.from.path !== p.path) nudged = { from: p, entry: session.value<number>(p.path!) ?? 0, now: p }
    const n = nudged!
    n.now = within(n.from, { at: n.now.at + way[0]! * step, height: n.now.height + way[1]! * step })
    session.preview(changes(n.from, n.entry, n.now))
    later.wait()
  }
</script>

{#each seen as p (p.path)}
  <g
    {@attach grip(p.path!)}
    class="cursor-move touch-none"
    role="slider"
    tabindex="0"
    aria-label={msg.ground_handles_ground_height_at({ tape: tape(p.at, units) })}
    aria-orientation="vertical"
    aria-valuenow={p.height}
    aria-valuetext={short(p.height, units)}
    onkeydown={(e) => key(e, p)}
    data-ground={p.path}
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
{/each}
{#if inSight.length > MOST}
  <Measure
    x={view.width / 2}
    y={view.above - 8}
    {units}
    words={msg.ground_handles_ground_points_zoom_in_to({ count: inSight.length })}
  />
{/if}
