<script lang="ts">
  // The run from the side, drawn true: fence, ground in section, holes and
  // frost, with the tape under it.
  import type { Snippet } from 'svelte'
  import type { Session } from '../lib/session.svelte'
  import { canHold } from '../lib/hold'
  import { short, tape } from '../lib/tape'
  import type { View as Asked } from '../gen/api'
  import type { Stage } from '../lib/stages'
  import { gestures } from './gestures'
  import Scene from './Scene.svelte'
  import { inSight, nearest } from './sight'
  import GateHandle from './GateHandle.svelte'
  import GradePost from './GradePost.svelte'
  import GroundHandles from './GroundHandles.svelte'
  import PostHandle from './PostHandle.svelte'
  import StringEnd from './StringEnd.svelte'
  import Ruler from './Ruler.svelte'
  import type { View } from './view.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    session: Session
    view: View
    stage: Stage
    empty?: Snippet
  }
  let { session, view, stage, empty }: Props = $props()

  const run = $derived(session.drawn)
  const units = $derived(session.units)
  // The days are about what stands in the end, the log about holes first.
  const stress = $derived(stage === 'days' ? 'build' : stage === 'log' ? 'dig' : stage)
  /** Of a long run only what is in sight is drawn, and a quarter of that on either side. */
  const LONG = 300
  const asked = $derived.by<Asked | undefined>(() => {
    if (view.width < 40 || view.height < 80) return undefined
    const side = (view.to - view.from) / 4
    const long = run.posts.length > LONG
    return {
      of: 'elevation',
      run: session.run.id,
      whole: session.strip ? true : undefined,
      stress,
      set: stage === 'pour' ? view.set : undefined,
      from: long ? view.from - side : undefined,
      to: long ? view.to + side : undefined,
      ...(stage === 'grade'
        ? {
            least: session.value<number>(session.at('/fence/gapLeast')) ?? 0,
            most: session.value<number>(session.at('/fence/gapMost')) ?? 0,
          }
        : {}),
      frame: {
        width: view.width,
        height: view.height - view.tape,
        top: view.above,
        x: view.place.x,
        y: view.place.y,
      },
    }
  })
  // A session is for the component's life.
  // svelte-ignore state_referenced_locally
  const drawing = session.drawings.keep(() => asked)
  $effect(() => {
    view.left = drawing()?.left ?? 0
  })
  const current = $derived(run.posts[session.drawnPost])
  const stale = $derived(session.store.errors.length > 0 || session.behind)

  /** Posts that can be pulled: those with room for a finger, and the picked one. */
  const pulled = $derived.by(() => {
    const { first, last } = inSight(run, view)
    const out: { p: (typeof run.posts)[number]; i: number }[] = []
    let free = -Infinity
    for (let i = first; i <= last && run.posts.length; i++) {
      const p = run.posts[i]!
      if (!canHold(p)) continue
      const x = view.x(p.station)
      if (i !== session.drawnPost && !p.held && x < free) continue
      out.push({ p, i })
      free = x + 26
    }
    return out
  })

  /** Grade posts that can be dragged, with room for a finger between them. */
  const graded = $derived.by(() => {
    const { first, last } = inSight(run, view)
    const out: { p: (typeof run.posts)[number]; i: number }[] = []
    let free = -Infinity
    for (let i = Math.max(1, first); i <= last && i < run.posts.length - 1; i++) {
      const p = run.posts[i]!
      if (!p.grade || !canHold(p) || view.x(p.station) < free) continue
      out.push({ p, i })
      free = view.x(p.station) + 26
    }
    return out
  })

  let svg: SVGSVGElement
  let said = $state('')

  function pick(index: number, show = true) {
    const p = run.posts[index]
    if (!p) return
    session.pickDrawn(index)
    if (show) view.show(p.station)
    said = msg.elevation_post_at_hole_by({
      label: p.label,
      kind: p.kind,
      tape: tape(p.station, units),
      short: short(p.holeWidth, units),
      short2: short(p.holeDepth, units),
    })
  }

  const follow = gestures({
    pan: (dx, dy) => view.pan(dx, dy),
    zoom: (factor, x) => view.zoomBy(factor, x),
    tap: (x) => pick(nearest(run, view.station(x)), false),
    wheel: (e, x) => {
      if (e.ctrlKey) {
        e.preventDefault()
        view.zoomBy(Math.exp(-e.deltaY / 200), x)
      } else if (view.zoom > 1 || e.deltaX) {
        e.preventDefault()
        view.pan(-(e.deltaX + e.deltaY))
      }
    },
  })

  function key(e: KeyboardEvent) {
    if (e.target !== svg || e.ctrlKey || e.metaKey || e.altKey) return
    const to: Record<string, number> = {
      ArrowLeft: session.drawnPost - 1,
      ArrowRight: session.drawnPost + 1,
      Home: 0,
      End: run.posts.length - 1,
    }
    if (e.key in to) pick(Math.min(Math.max(to[e.key]!, 0), run.posts.length - 1))
    else if (e.key === '+' || e.key === '=') view.zoomBy(1.5)
    else if (e.key === '-') view.zoomBy(1 / 1.5)
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
    class="block touch-pan-y outline-none focus-visible:outline-3 focus-visible:-outline-offset-3 focus-visible:outline-mallow"
    class:opacity-50={stale}
    width={view.width}
    height={view.height}
    role="application"
    aria-label={msg.elevation_from_the_side_posts_left({
      v1: session.strip ? msg.elevation_the_whole_line : msg.elevation_the_run,
      count: run.posts.length,
    })}
    tabindex="0"
    onkeydown={key}
    data-posts={run.posts.length}
  >
    <defs>
      <clipPath id="sheet"><rect width={view.width} height={Math.max(0, view.height - view.tape)} /></clipPath
      >
    </defs>

    <g clip-path="url(#sheet)">
      {#if drawing()}<Scene drawing={drawing()!} {units} place={view.place} {stress} />{/if}
      {#if current}
        {@const x = view.x(current.station)}
        {@const wide = Math.max(current.holeWidth * view.scale, 5) + 6}
        {@const top = view.y(current.top)}
        <path
          d="M{x} {top - 4}V{view.height - view.tape}"
          class="stroke-(--mallow)"
          stroke-width="1.5"
          stroke-dasharray="3 3"
        />
        <rect
          x={x - wide / 2}
          y={top - 3}
          width={wide}
          height={view.y(current.ground - current.holeDepth) - top + 6}
          fill="none"
          class="stroke-(--mallow)"
          stroke-width="2.5"
        />
      {/if}
    </g>
    <Ruler {session} {view} drawing={drawing()} />
    {#if !session.strip}
      {#if stage === 'walk'}<GroundHandles {session} {view} />{/if}
      {#if stage === 'space'}
        {#each pulled as { p, i } (session.run.id + p.label)}<PostHandle
            {session}
            {view}
            post={p}
            index={i}
          />{/each}
      {/if}
      {#if stage === 'grade' && run.bays.length}
        {#each ['start', 'end'] as const as end (session.run.id + end)}<StringEnd
            {session}
            {view}
            {end}
          />{/each}
        {#each graded as { p, i } (session.run.id + p.label)}<GradePost
            {session}
            {view}
            post={p}
            index={i}
          />{/each}
      {/if}
      {#if !session.strip}
        {#each run.gates as gate (session.run.id + gate.id)}
          <GateHandle {session} {view} {gate} />
        {/each}
      {/if}
    {/if}
  </svg>
  {#if !run.posts.length}{@render empty?.()}{/if}
  {#if stale}
    <p
      class="absolute top-2 left-1/2 -translate-x-1/2 border border-stop bg-stop-wash px-3 py-1 font-medium text-stop"
    >
      {msg.elevation_drawn_as_it_last_fitted}
    </p>
  {/if}
  <p class="sr-only" aria-live="polite">{said}</p>
</div>
