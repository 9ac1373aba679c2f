<script lang="ts">
  // The whole line from above, to scale: pick a run, turn a corner.
  import type { Job, Op, PlannedCorner, View as Asked } from '../gen/api'
  import { snap } from '../drawing/drag'
  import { gestures } from '../drawing/gestures'
  import { api } from '../lib/api'
  import { Later } from '../lib/later'
  import type { Session } from '../lib/session.svelte'
  import { tape } from '../lib/tape'
  import { turnText } from '../lib/turn'
  import Measure from '../drawing/Measure.svelte'
  import Scene from '../drawing/Scene.svelte'
  import CornerHandle from './CornerHandle.svelte'
  import type { MapView, Spot } from './mapview.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    view: MapView
    /** The strings are drawn too. */
    strings?: boolean
  }
  let { session, view, strings = false }: Props = $props()
  const units = $derived(session.units)
  const line = $derived(session.line)
  let svg: SVGSVGElement
  /** The corner under the hand, and where it is dragged to. */
  let dragged = $state<{ i: number; to: Spot } | null>(null)
  /** The corner that keys move, and by how much. */
  let nudged = $state<{ i: number; by: Spot } | null>(null)

  const asked = $derived<Asked | undefined>(
    view.width > 40 && view.height > 40
      ? {
          of: 'map',
          run: session.run.id,
          stress: strings ? 'string' : undefined,
          frame: { width: view.width, height: view.height, x: view.place.x, y: view.place.y },
        }
      : undefined,
  )
  // A session is for the component's life.
  // svelte-ignore state_referenced_locally
  const drawing = session.drawings.keep(() => asked)

  const north = $derived(session.value<number>(session.lineAt('/bearing')) !== undefined)
  const bar = $derived.by(() => {
    const unit = units.system === 'metric' ? 1000 : 304.8
    const steps = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]
    const n = steps.find((s) => s * unit * view.scale > 44) ?? 1000
    return { width: n * unit * view.scale, name: `${n} ${units.system === 'metric' ? 'm' : msg.site_map_ft}` }
  })

  /** The corner's neighbours on the line. */
  function neighbours(i: number): Spot[] {
    const all = line.corners.map((c) => c.place)
    const n = all.length
    const out: Spot[] = []
    if (i > 0 || line.closed) out.push(all[(i + n - 1) % n]!)
    if (i < n - 1 || line.closed) out.push(all[(i + 1) % n]!)
    return out
  }

  /** The document before the hand took a corner: every place of the hand is worked out of it. */
  let before: Job | null = null
  /** The newest place that the hand has been to, while an older one is worked out. */
  let next: { i: number; to: Spot } | null = null
  let making = false

  async function drag(i: number, to: Spot) {
    if (!before) {
      before = session.doc
      view.hold()
    }
    dragged = { i, to }
    next = dragged
    if (making) return
    making = true
    while (next) {
      const now: { i: number; to: Spot } = next
      next = null
      const from: Job | null = before
      // Where a corner cannot lie is said when it is let go.
      const made: { doc: Job } | null =
        from && (await api.reshape({ doc: from, op: moved(now.i, now.to) }).catch(() => null))
      if (made && before === from) session.store.show(made.doc)
    }
    making = false
  }
  /** The hand has let go: the document is again what it was. */
  function released() {
    if (before) session.store.show(before)
    before = next = dragged = null
    view.release()
  }

  async function move(i: number, to: Spot) {
    released()
    told(await session.reshape(moved(i, to)))
  }
  const moved = (i: number, to: Spot): Op => ({
    do: 'move corner',
    line: line.id,
    run: line.corners[i]!.after,
    place: { x: to.x, y: to.y },
  })
  function told(wrong: string | null) {
    if (wrong) session.store.notice = msg.site_map_the_corner_stays_where_it({ wrong })
  }
  // Keys move a corner by so much from where it lies when its turn comes.
  const later = new Later(() => {
    const { i, by } = nudged!
    dragged = nudged = null
    void session.reshapeFrom(() => moved(i, add(line.corners[i]!.place, by))).then(told)
  })
  function nudge(i: number, dx: number, dy: number) {
    if (nudged && nudged.i !== i) Later.flush()
    const by = add(nudged?.by ?? { x: 0, y: 0 }, { x: dx, y: dy })
    nudged = { i, by }
    dragged = { i, to: add(line.corners[i]!.place, by) }
    later.wait()
  }
  const add = (a: Spot, b: Spot): Spot => ({ x: a.x + b.x, y: a.y + b.y })
  const fine = (p: Spot): Spot => ({
    x: snap(p.x, 1 / view.scale, units),
    y: snap(p.y, 1 / view.scale, units),
  })

  function said(c: PlannedCorner, i: number): string {
    const what = c.turn === undefined ? (c.before && c.after ? msg.common_not_measured : 'end') : turnText(c)
    return msg.site_map_corner({ v1: i + 1, v2: c.post ?? '', what })
  }

  const follow = gestures({
    pan: (dx, dy) => view.pan(dx, dy),
    zoom: (factor, x, y) => view.zoomBy(factor, x, y),
    tap: (x, y) => pickAt({ x, y }),
    wheel: (e, x, y) => {
      e.preventDefault()
      view.zoomBy(Math.exp(-e.deltaY / 300), x, y)
    },
  })
  function pickAt(p: Spot) {
    let best = { far: 34, id: '' }
    for (const r of session.plan.runs) {
      const [ax, ay, bx, by] = [view.x(r.from), view.y(r.from), view.x(r.to), view.y(r.to)]
      const l = (bx - ax) ** 2 + (by - ay) ** 2 || 1
      const t = Math.min(Math.max(((p.x - ax) * (bx - ax) + (p.y - ay) * (by - ay)) / l, 0), 1)
      const far = Math.hypot(p.x - ax - t * (bx - ax), p.y - ay - t * (by - ay))
      if (far < best.far) best = { far, id: r.id }
    }
    if (best.id) session.pickRun(best.id)
  }
  function key(e: KeyboardEvent) {
    if (e.target !== svg || e.ctrlKey || e.metaKey || e.altKey) return
    const runs = session.plan.runs
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key]
    if (step && !e.shiftKey) {
      session.pickRun(runs[Math.min(Math.max(session.runIndex + step, 0), runs.length - 1)]!.id)
    } else if (step) {
      view.pan({ ArrowRight: -40, ArrowLeft: 40 }[e.key] ?? 0, { ArrowDown: -40, ArrowUp: 40 }[e.key] ?? 0)
    } else if (e.key === '+' || e.key === '=') view.zoomBy(1.4)
    else if (e.key === '-') view.zoomBy(1 / 1.4)
    else if (e.key === '0') view.whole()
    else return
    e.preventDefault()
  }
</script>

<div
  class="relative h-full w-full overflow-hidden bg-sheet select-none"
  bind:clientWidth={view.width}
  bind:clientHeight={view.height}
>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <svg
    bind:this={svg}
    {@attach follow}
    class="block touch-none outline-none focus-visible:outline-3 focus-visible:-outline-offset-3 focus-visible:outline-mallow"
    width={view.width}
    height={view.height}
    role="application"
    aria-label={msg.site_map_site_map_runs_from_above({ count: session.plan.runs.length })}
    tabindex="0"
    onkeydown={key}
    data-map={session.run.id}
  >
    {#if drawing()}
      <Scene drawing={drawing()!} {units} place={view.place} stress={strings ? 'string' : undefined} />
    {/if}
    {#if dragged}
      {#each neighbours(dragged.i) as p, k (k)}
        <path
          d="M{view.x(p)} {view.y(p)}L{view.x(dragged.to)} {view.y(dragged.to)}"
          class="stroke-(--mallow)"
          stroke-width="2"
          stroke-dasharray="6 4"
        />
        <Measure
          x={(view.x(p) + view.x(dragged.to)) / 2}
          y={(view.y(p) + view.y(dragged.to)) / 2}
          {units}
          mm={Math.hypot(p.x - dragged.to.x, p.y - dragged.to.y)}
          long
          strong
        />
      {/each}
    {/if}
    {#each line.corners as c, i (i)}
      <CornerHandle
        corner={c}
        {view}
        {units}
        label={said(c, i)}
        onmove={(to) => drag(i, fine(to))}
        onsettle={(to) => move(i, fine(to))}
        onnudge={(dx, dy) => nudge(i, dx, dy)}
        oncancel={released}
      />
    {/each}
    <g transform="translate(10 {view.height - 12})" aria-hidden="true">
      <path d="M0 -5V0H{bar.width}V-5" class="stroke-(--ink)" fill="none" stroke-width="1.6" />
      <text x={bar.width / 2} y="-5" text-anchor="middle" class="fill-(--ink) text-[12.5px] font-semibold"
        >{bar.name}</text
      >
    </g>
    {#if north}
      <g transform="translate({view.width - 20} 28)" aria-label={msg.site_map_north_is_up}>
        <path d="M0 16V-14M-6 -5L0 -16L6 -5" class="stroke-(--ink)" fill="none" stroke-width="2" />
        <text y="30" text-anchor="middle" class="fill-(--ink) text-[12.5px] font-bold">N</text>
      </g>
    {/if}
  </svg>
  {#if line.corners.length && !session.run.length}
    <p class="pointer-events-none absolute inset-x-3 top-8 text-center text-[0.92rem] text-pencil">
      {msg.site_map_is_drawn_here_once_it({ v1: session.run.name || session.run.id })}
    </p>
  {/if}
  <p class="sr-only" aria-live="polite">
    {session.run.name || session.run.id}, {tape(session.run.length, units)}
  </p>
</div>
