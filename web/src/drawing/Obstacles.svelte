<script lang="ts">
  // What is in the way, under ground: a band where it lies, a lighter one
  // where digging is by hand, and its name.
  import type { Session } from '../lib/session.svelte'
  import { groundAt } from './ground'
  import Measure from './Measure.svelte'
  import { TAPE_HEIGHT, type View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const run = $derived(session.drawn)
  const floor = $derived(view.height - TAPE_HEIGHT)
  const seen = $derived(run.inTheWay.filter((o) => o.handTo >= view.from && o.handFrom <= view.to))
  /** Names that would lie on each other are left out, or stand a line lower. */
  const named = $derived.by(() => {
    const ends = [-Infinity, -Infinity]
    return seen.map((o) => {
      const half = o.name.length * 3.7
      const x = Math.min(
        Math.max(view.x((o.from + o.to) / 2), half + 4),
        Math.max(view.width - half - 4, half + 4),
      )
      const row = ends.findIndex((end) => x - half > end + 6)
      if (row >= 0) ends[row] = x + half
      return { x, row }
    })
  })
</script>

{#each seen as o, i (o.path)}
  {@const [a, b] = [view.x(o.from), view.x(o.to)]}
  {@const [ha, hb] = [view.x(o.handFrom), view.x(o.handTo)]}
  {@const middle = (a + b) / 2}
  {@const y = view.y(groundAt(run.ground, (o.from + o.to) / 2))}
  {@const top = o.depth === undefined ? y : view.y(groundAt(run.ground, (o.from + o.to) / 2) - o.depth)}
  {@const hue = o.colour ? `var(--service-${o.colour})` : 'var(--ink)'}
  {#if hb - ha > b - a + 1}
    <rect x={ha} {y} width={hb - ha} height={floor - y} fill={hue} opacity="0.13" />
    <path
      d="M{ha} {y}V{floor}M{hb} {y}V{floor}"
      stroke={hue}
      stroke-width="1.2"
      stroke-dasharray="2 4"
      fill="none"
    />
  {/if}
  {#if o.kind === 'old post'}
    <path
      d="M{middle - 4} {y - 40}h8v{40 + 24}h-8z"
      class="fill-(--sheet) stroke-(--ink)"
      stroke-width="1.6"
      stroke-dasharray={o.stays ? 'none' : '4 3'}
    />
  {:else if o.kind !== 'service'}
    <rect
      x={Math.min(a, middle - 2.5)}
      y={top}
      width={Math.max(b - a, 5)}
      height={floor - top}
      fill="url(#inway)"
      stroke={hue}
      stroke-width="1.8"
    />
  {:else}
    <path d="M{middle} {y - 9}V{floor}" stroke={hue} stroke-width="3.5" />
    <path d="M{middle} {y - 9}l13 -6v-11l-13 6z" fill={hue} stroke="var(--ink)" stroke-width="1" />
  {/if}
  {#if named[i]!.row >= 0}
    <Measure
      x={named[i]!.x}
      y={Math.min(y + 38 + named[i]!.row * 17, floor - 5)}
      units={session.units}
      words={o.name}
    />
  {/if}
{/each}
<defs>
  <pattern id="inway" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <path d="M0 0H8" class="stroke-(--ink)" stroke-width="1.6" />
    <path d="M0 0V8" class="stroke-(--ink)" stroke-width="1.6" />
  </pattern>
</defs>
