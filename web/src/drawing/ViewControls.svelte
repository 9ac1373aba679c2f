<script lang="ts">
  // How the drawing is looked at, in a column at its edge. What has no room
  // there stands in its menu too.
  import { Popover } from 'bits-ui'
  import Expand from '@lucide/svelte/icons/move-horizontal'
  import Eye from '@lucide/svelte/icons/eye'
  import Minus from '@lucide/svelte/icons/minus'
  import Plus from '@lucide/svelte/icons/plus'
  import { heights, layout } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import Choice from '../parts/Choice.svelte'
  import type { View } from './view.svelte'

  let { view, session, left = 0 }: { view: View; session: Session; left?: number } = $props()
  const stretch = $derived(view.trueScale ? '×1' : `×${view.stretch.toFixed(view.stretch < 10 ? 1 : 0)}`)
  const names = { strip: 'Strip', half: 'Half', full: 'Full' }
</script>

<div
  class="flex h-full w-11 flex-none flex-col overflow-hidden border-l border-line bg-sheet"
  role="group"
  aria-label="View"
>
  <Popover.Root>
    <Popover.Trigger class="btn btn-plain btn-icon" aria-label="View: scale, runs, what is shown"
      ><Eye size={20} /></Popover.Trigger
    >
    <Popover.Portal>
      <Popover.Content
        side="left"
        align="start"
        collisionPadding={8}
        class="z-40 grid w-80 max-w-[calc(100vw-1rem)] gap-3 border border-ink bg-sheet p-3 text-ink shadow-lg"
        role="dialog"
        aria-label="View"
      >
        <Choice
          label="Height of the drawing"
          value={layout.height}
          options={heights.map((h) => ({ value: h, name: names[h] }))}
          onpick={(h) => layout.set({ height: heights.find((x) => x === h) })}
        />
        <div class="grid gap-1.5">
          <button
            class="btn justify-between"
            aria-pressed={view.trueScale}
            onclick={() => (view.trueScale = !view.trueScale)}
            >Vertical scale <strong>{stretch}</strong><span class="font-normal text-pencil"
              >{view.trueScale ? 'stretch it' : 'make it true'}</span
            ></button
          >
          {#if session.line.runs > 1}
            <button
              class="btn"
              aria-pressed={session.unrolled}
              onclick={() => {
                session.unrolled = !session.unrolled
                view.whole()
              }}>{session.unrolled ? 'Show one run' : 'Show all runs in line'}</button
            >
          {/if}
          <button class="btn" aria-pressed={layout.map} onclick={() => layout.set({ map: !layout.map })}
            >{layout.map ? 'Hide the site map' : 'Show the site map'}</button
          >
          <button
            class="btn max-lg:hidden"
            aria-pressed={layout.load}
            onclick={() => layout.set({ load: !layout.load })}
            >{layout.load ? 'Fold the load' : 'Show the load'}</button
          >
        </div>
        {#if left}<p class="text-pencil">
            {left}
            {left === 1 ? 'label has' : 'labels have'} no room; zoom in to read {left === 1 ? 'it' : 'them'}.
          </p>{/if}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
  <button class="btn btn-plain btn-icon" aria-label="Zoom in" onclick={() => view.zoomBy(1.6)}
    ><Plus size={20} /></button
  >
  <button
    class="btn btn-plain btn-icon"
    aria-label="Zoom out"
    disabled={view.zoom <= 1}
    onclick={() => view.zoomBy(1 / 1.6)}><Minus size={20} /></button
  >
  <button
    class="btn btn-plain btn-icon"
    aria-label="Fit the run"
    title="Fit the run"
    disabled={view.zoom <= 1}
    onclick={() => view.whole()}><Expand size={20} /></button
  >
</div>
