<script lang="ts">
  // Where the unrolled line turns: a fold, and how far it turns there.
  import type { Session } from '../lib/session.svelte'
  import { turnText } from '../lib/turn'
  import Measure from './Measure.svelte'
  import { TAPE_HEIGHT, type View } from './view.svelte'

  let { session, view }: { session: Session; view: View } = $props()
  const folds = $derived(
    (session.strip?.starts ?? []).map((start, i) => ({
      x: view.x(start),
      name: session.lineRuns[i]!.name || session.lineRuns[i]!.id,
      middle: view.x(start + session.lineRuns[i]!.length / 2),
      turn: i ? turnText(session.line.corners[i]) : '',
    })),
  )
</script>

{#each folds as f, i (i)}
  {#if i}
    <path
      d="M{f.x} {view.above - 27}V{view.height - TAPE_HEIGHT}"
      class="stroke-(--ink)"
      stroke-width="1.4"
      stroke-dasharray="7 5"
    />
    <Measure x={f.x} y={view.above - 32} units={session.units} words={f.turn} />
  {/if}
  <Measure
    x={Math.min(Math.max(f.middle, 40), view.width - 40)}
    y={view.above - 52}
    units={session.units}
    words={f.name}
    strong
  />
{/each}
