<script lang="ts">
  // The run from the side, drawn true: fence, ground in section, holes and
  // frost, with the tape under it.
  import type { Snippet } from 'svelte'
  import type { Session } from '../lib/session.svelte'
  import { canHold } from '../lib/hold'
  import { short, tape } from '../lib/tape'
  import type { Stage } from '../lib/stages'
  import { gestures } from './gestures'
  import { draw, inSight } from './paths'
  import Corridor from './Corridor.svelte'
  import GateHandle from './GateHandle.svelte'
  import GradePost from './GradePost.svelte'
  import GroundHandles from './GroundHandles.svelte'
  import HangingString from './HangingString.svelte'
  import PostHandle from './PostHandle.svelte'
  import Obstacles from './Obstacles.svelte'
  import StringEnd from './StringEnd.svelte'
  import StripCorners from './StripCorners.svelte'
  import Marks from './Marks.svelte'
  import Ruler from './Ruler.svelte'
  import { TAPE_HEIGHT, type View } from './view.svelte'

  interface Props {
    session: Session
    view: View
    stage: Stage
    empty?: Snippet
  }
  let { session, view, stage, empty }: Props = $props()

  const run = $derived(session.drawn)
  const units = $derived(session.units)
  const metal = $derived(session.value<boolean>(session.at('/post/hollow')) ?? false)
  /** What wind goes through is drawn as mesh; a solid face as boards. */
  const open = $derived(metal && session.run.solid < 0.5)
  /** Rails are drawn as such where nothing hangs on them. */
  const rows = $derived(
    !session.strip && run.way === 'overlapping rails'
      ? (session.value<number>(session.at('/spacing/rails')) ?? 2)
      : 0,
  )
  /** A split rail is some 5 in (125 mm) through. */
  const thick = $derived(Math.min(Math.max(125 * view.rise, 1.2), 9))
  const d = $derived(draw(run, view, rows))
  const above = $derived(stage === 'dig' || stage === 'pour' ? 0.38 : stage === 'string' ? 0.55 : 1)
  const below = $derived(stage === 'dig' || stage === 'pour' || stage === 'grade' ? 1 : 0.75)
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
    said = `${p.label}, ${p.kind} post at ${tape(p.station, units)}, hole ${short(p.holeWidth, units)} by ${short(p.holeDepth, units)}`
  }

  function nearest(x: number): number {
    const at = view.station(x)
    let best = 0
    run.posts.forEach((p, i) => {
      if (Math.abs(p.station - at) < Math.abs(run.posts[best]!.station - at)) best = i
    })
    return best
  }

  const follow = gestures({
    pan: (dx, dy) => view.pan(dx, dy),
    zoom: (factor, x) => view.zoomBy(factor, x),
    tap: (x) => pick(nearest(x), false),
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
    aria-label="{session.strip ? 'The whole line' : 'The run'} from the side, {run.posts
      .length} posts. Left and right arrows go from post to post, plus and minus zoom."
    tabindex="0"
    onkeydown={key}
    data-posts={run.posts.length}
  >
    <defs>
      <pattern id="hatch" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0H9" class="stroke-(--ground-hatch)" stroke-width="1.6" />
      </pattern>
      <pattern id="dots" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="1.1" class="fill-(--gravel-dot)" />
        <circle cx="4.6" cy="4.4" r="1.1" class="fill-(--gravel-dot)" />
      </pattern>
      <pattern id="stones" width="13" height="11" patternUnits="userSpaceOnUse">
        <path
          d="M1 4l3-3 4 1 1 3-3 3-4-1zM8 9l2-2 3 1v3H9z"
          class="fill-(--gravel) stroke-(--gravel-dot)"
          stroke-width="1.2"
        />
      </pattern>
      <pattern id="boards" width="8" height="8" patternUnits="userSpaceOnUse">
        <path d="M0 0V8" class="stroke-(--timber-edge)" stroke-width="1" opacity="0.55" />
      </pattern>
      <pattern id="mesh" width="10" height="10" patternUnits="userSpaceOnUse">
        <path
          d="M0 0 10 10M10 0 0 10"
          class="stroke-(--metal-edge)"
          stroke-width="0.9"
          opacity="0.6"
          fill="none"
        />
      </pattern>
      <pattern id="earth" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0H7" class="stroke-(--stop)" stroke-width="2.2" />
      </pattern>
      <pattern
        id="corridor"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(-45)"
      >
        <path d="M0 0H6" class="stroke-(--ink)" stroke-width="1.4" opacity="0.7" />
      </pattern>
      <clipPath id="sheet"
        ><rect width={view.width} height={Math.max(0, view.height - TAPE_HEIGHT)} /></clipPath
      >
    </defs>

    <g clip-path="url(#sheet)">
      <path d={d.ground} class="fill-(--ground)" />
      {#if run.frost}
        <path d={d.frost} class="fill-(--frost)" opacity={stage === 'dig' ? 1 : 0.8} />
      {/if}
      <path d={d.ground} fill="url(#hatch)" opacity="0.5" />
      {#if run.frost}
        <path
          d={d.frostLine}
          class="stroke-(--frost-edge)"
          fill="none"
          stroke-width="2"
          stroke-dasharray="9 5"
        />
      {/if}
      <g opacity={below}>
        <path d={d.soil} class="fill-(--ground) stroke-(--ground-edge)" stroke-width="1" />
        <path d={d.concrete} class="fill-(--concrete) stroke-(--concrete-edge)" stroke-width="1.2" />
        <path d={d.stone} class="fill-(--gravel)" />
        <path d={d.stone} fill="url(#stones)" class="stroke-(--concrete-edge)" stroke-width="1.2" />
        <path d={d.gravel} class="fill-(--gravel)" />
        <path d={d.gravel} fill="url(#dots)" class="stroke-(--concrete-edge)" stroke-width="1.2" />
        <path
          d={d.postsBelow}
          class={metal ? 'fill-(--metal) stroke-(--metal-edge)' : 'fill-(--timber) stroke-(--timber-edge)'}
          stroke-width="1"
          stroke-dasharray="4 2"
        />
      </g>
      <path d={d.surface} class="stroke-(--ground-edge)" fill="none" stroke-width="2.5" />
      <path
        d={d.finished}
        class="stroke-(--ground-edge)"
        fill="none"
        stroke-width="1.8"
        stroke-dasharray="7 4"
        data-finished
      />
      {#if stage === 'grade' && run.posts.length}<Corridor {session} {view} />{/if}
      {#if stage === 'grade'}
        <path d={d.fill} fill="url(#earth)" />
        <path d={d.cut} fill="url(#earth)" />
      {/if}
      <g opacity={above}>
        <path
          d={d.panels}
          class={metal ? 'fill-(--metal)' : 'fill-(--timber)'}
          fill-opacity={open ? 0.12 : metal ? 0.3 : 0.45}
        />
        <path
          d={d.panels}
          fill="url(#{open ? 'mesh' : 'boards'})"
          class={metal ? 'stroke-(--metal-edge)' : 'stroke-(--timber-edge)'}
          stroke-width="1.2"
        />
        <path d={d.rails} class="stroke-(--timber-edge)" stroke-width={thick + 2.5} fill="none" />
        <path d={d.rails} class="stroke-(--timber)" stroke-width={thick} fill="none" />
        <path d={d.boards} class="stroke-(--concrete-edge)" fill="none" stroke-width="1.6" data-boards />
        <path
          d={d.infill}
          class="fill-(--concrete) stroke-(--concrete-edge)"
          stroke-width="1.4"
          data-infill
        />
        <path d={d.leaves} class="fill-(--sheet) stroke-(--ink)" stroke-width="1.8" />
        <path d={d.braces} class="stroke-(--ink)" fill="none" stroke-width="1.6" />
        <path
          d={d.postsAbove}
          class={metal ? 'fill-(--metal) stroke-(--metal-edge)' : 'fill-(--timber) stroke-(--timber-edge)'}
          stroke-width="1.3"
        />
      </g>
      {#if stage !== 'string'}
        <path d={d.string} class="stroke-(--mallow)" fill="none" stroke-width="2" />
      {/if}
      <Obstacles {session} {view} />
      {#if stage === 'string'}<HangingString {session} {view} />{/if}
      {#if session.strip}<StripCorners {session} {view} />{/if}
      {#if current}<Marks {session} {view} {stage} />{/if}
    </g>
    <Ruler {session} {view} />
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
      Drawn as it last fitted
    </p>
  {/if}
  <p class="sr-only" aria-live="polite">{said}</p>
</div>
