<script lang="ts">
  import Minus from '@lucide/svelte/icons/minus'
  import Plus from '@lucide/svelte/icons/plus'
  import type { Session } from '../lib/session.svelte'
  import type { View } from './view.svelte'

  let { view, session }: { view: View; session: Session } = $props()
  const stretch = $derived(view.trueScale ? '1:1' : `×${view.stretch.toFixed(view.stretch < 10 ? 1 : 0)}`)
</script>

<div class="flex border border-line bg-sheet" role="group" aria-label="View">
  {#if session.line.runs > 1}
    <button
      class="btn btn-plain px-2 text-[0.88rem] aria-pressed:font-bold"
      aria-pressed={session.unrolled}
      title="The whole line from the side, corner after corner"
      onclick={() => {
        session.unrolled = !session.unrolled
        view.whole()
      }}>{session.unrolled ? 'one run' : 'unroll'}</button
    >
  {/if}
  <button
    class="btn btn-plain px-2 text-[0.88rem]"
    aria-pressed={view.trueScale}
    onclick={() => (view.trueScale = !view.trueScale)}
    title={view.trueScale ? 'Stretch the heights' : 'Draw heights to the same scale as lengths'}
    >heights {stretch}</button
  >
  <button
    class="btn btn-plain btn-icon border-l-rule"
    aria-label="Zoom out"
    disabled={view.zoom <= 1}
    onclick={() => view.zoomBy(1 / 1.6)}><Minus size={20} /></button
  >
  <button class="btn btn-plain px-2 text-[0.88rem]" disabled={view.zoom <= 1} onclick={() => view.whole()}
    >whole</button
  >
  <button class="btn btn-plain btn-icon" aria-label="Zoom in" onclick={() => view.zoomBy(1.6)}
    ><Plus size={20} /></button
  >
</div>
