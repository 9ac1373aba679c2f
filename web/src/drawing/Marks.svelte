<script lang="ts">
  // What the stage stresses: spacing, gaps, holes or concrete, and the post
  // that is picked.
  import type { Session } from '../lib/session.svelte'
  import type { Stage } from '../lib/stages'
  import { groundAt } from './ground'
  import Measure from './Measure.svelte'
  import { inSight } from './paths'
  import SpaceMarks from './SpaceMarks.svelte'
  import { TAPE_HEIGHT, type View } from './view.svelte'

  let { session, view, stage }: { session: Session; view: View; stage: Stage } = $props()
  const run = $derived(session.drawn)
  const units = $derived(session.units)
  const current = $derived(run.posts[session.drawnPost]!)
  const sight = $derived(inSight(run, view))
  const floor = $derived(view.height - TAPE_HEIGHT)

  const bays = $derived(run.bays.slice(sight.first, sight.last).map((b, k) => ({ b, i: sight.first + k })))
  const posts = $derived(run.posts.slice(sight.first, sight.last + 1))
  const x = (i: number) => view.x(run.posts[i]!.station)

  /** The bays with the least and the most gap, and those that need earth. */
  const gaps = $derived.by(() => {
    const fence = run.bays.filter((b) => !b.gate)
    if (!fence.length) return []
    const least = fence.reduce((a, b) => (b.gapLeast.gap < a.gapLeast.gap ? b : a))
    const most = fence.reduce((a, b) => (b.gapMost.gap > a.gapMost.gap ? b : a))
    return [
      { at: least.gapLeast.at, gap: least.gapLeast.gap, words: 'least ' },
      { at: most.gapMost.at, gap: most.gapMost.gap, words: 'most ' },
    ].filter((g) => g.at >= view.from && g.at <= view.to)
  })
  const room = $derived(posts.length > 1 ? view.x(posts[1]!.station) - view.x(posts[0]!.station) : 100)
</script>

{#if stage === 'space'}
  <SpaceMarks {session} {view} />
{:else if stage === 'grade'}
  {#each gaps as g, i (g.words)}
    {@const gx = view.x(g.at)}
    {@const gy = view.y(groundAt(run.ground, g.at))}
    <path d="M{gx} {gy}V{gy - g.gap * view.rise}" class="stroke-(--ink)" stroke-width="3" />
    <Measure
      x={Math.min(Math.max(gx, 60), view.width - 60)}
      y={gy + 19 + 18 * i}
      {units}
      mm={g.gap}
      words={g.words}
      strong
    />
  {/each}
  {#each bays.filter(({ b, i }) => (b.fill || b.cut) && x(i + 1) - x(i) > 56) as { b, i } (b.label)}
    <Measure
      x={(x(i) + x(i + 1)) / 2}
      y={view.y(Math.max(b.topStart, b.topEnd)) - 8}
      {units}
      tone="stop"
      words={b.fill ? 'fill ' : 'cut '}
      mm={(b.fill ?? b.cut)!.depth}
    />
  {/each}
{:else if stage === 'dig' && room > 44}
  {#each posts as p (p.label)}
    <Measure
      x={view.x(p.station)}
      y={Math.min(view.y(p.ground - p.holeDepth) + 15, floor - 3)}
      {units}
      mm={p.holeDepth}
    />
  {/each}
{:else if stage === 'pour' && room > 30}
  {#each posts as p (p.label)}
    <Measure
      x={view.x(p.station)}
      y={Math.min(view.y(p.ground - p.holeDepth) + 15, floor - 3)}
      {units}
      words={p.bags > 0 ? p.bags.toFixed(1) : run.cards[p.card]?.stone ? 'stone' : '–'}
    />
  {/each}
{/if}

{#if run.frost && (stage === 'dig' || stage === 'pour') && run.ground.length}
  <Measure
    x={8}
    y={view.y(groundAt(run.ground, view.from) - run.frost) - 6}
    {units}
    tone="frost"
    anchor="start"
    words="frost "
    mm={run.frost}
  />
{/if}

{#if current}
  {@const cx = view.x(current.station)}
  <path
    d="M{cx} {view.y(current.top) - 4}V{floor}"
    class="stroke-(--mallow)"
    stroke-width="1.5"
    stroke-dasharray="3 3"
  />
  <rect
    x={cx - Math.max(current.holeWidth * view.scale, 5) / 2 - 3}
    y={view.y(current.top) - 3}
    width={Math.max(current.holeWidth * view.scale, 5) + 6}
    height={view.y(current.ground - current.holeDepth) - view.y(current.top) + 6}
    fill="none"
    class="stroke-(--mallow)"
    stroke-width="2.5"
  />
{/if}
