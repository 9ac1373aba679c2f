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
  import * as msg from '../gen/messages'

  let { view, session, left = 0 }: { view: View; session: Session; left?: number } = $props()
  const stretch = $derived(view.trueScale ? '×1' : `×${view.stretch.toFixed(view.stretch < 10 ? 1 : 0)}`)
  const names = { strip: msg.view_controls_strip, half: msg.view_controls_half, full: msg.view_controls_full }
</script>

<div
  class="flex h-full w-11 flex-none flex-col overflow-hidden border-l border-line bg-sheet"
  role="group"
  aria-label={msg.view_controls_view}
>
  <Popover.Root>
    <Popover.Trigger class="btn btn-plain btn-icon" aria-label={msg.view_controls_view_scale_runs_what_is}
      ><Eye size={20} /></Popover.Trigger
    >
    <Popover.Portal>
      <Popover.Content
        side="left"
        align="start"
        collisionPadding={8}
        class="z-40 grid w-80 max-w-[calc(100vw-1rem)] gap-3 border border-ink bg-sheet p-3 text-ink shadow-lg"
        role="dialog"
        aria-label={msg.view_controls_view}
      >
        <Choice
          label={msg.common_height_of_the_drawing}
          value={layout.height}
          options={heights.map((h) => ({ value: h, name: names[h] }))}
          onpick={(h) => layout.set({ height: heights.find((x) => x === h) })}
        />
        <div class="grid gap-1.5">
          <button
            class="btn justify-between"
            aria-pressed={view.trueScale}
            onclick={() => (view.trueScale = !view.trueScale)}
            >{msg.view_controls_vertical_scale} <strong>{stretch}</strong><span
              class="font-normal text-pencil"
              >{view.trueScale ? msg.view_controls_stretch_it : msg.view_controls_make_it_true}</span
            ></button
          >
          {#if session.line.runs > 1}
            <button
              class="btn"
              aria-pressed={session.unrolled}
              onclick={() => {
                session.unrolled = !session.unrolled
                view.whole()
              }}
              >{session.unrolled
                ? msg.view_controls_show_one_run
                : msg.view_controls_show_all_runs_in_line}</button
            >
          {/if}
          <button class="btn" aria-pressed={layout.map} onclick={() => layout.set({ map: !layout.map })}
            >{layout.map ? msg.common_hide_the_site_map : msg.view_controls_show_the_site_map}</button
          >
          <button
            class="btn max-lg:hidden"
            aria-pressed={layout.load}
            onclick={() => layout.set({ load: !layout.load })}
            >{layout.load ? msg.common_fold_the_load : msg.common_show_the_load}</button
          >
        </div>
        {#if left}<p class="text-pencil">
            {msg.view_controls_no_room_zoom_in_to({
              left,
              v2: left === 1 ? msg.common_label_has : msg.common_labels_have,
              v3: left === 1 ? msg.view_controls_it : msg.view_controls_them,
            })}
          </p>{/if}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
  <button
    class="btn btn-plain btn-icon"
    aria-label={msg.view_controls_zoom_in}
    onclick={() => view.zoomBy(1.6)}><Plus size={20} /></button
  >
  <button
    class="btn btn-plain btn-icon"
    aria-label={msg.view_controls_zoom_out}
    disabled={view.zoom <= 1}
    onclick={() => view.zoomBy(1 / 1.6)}><Minus size={20} /></button
  >
  <button
    class="btn btn-plain btn-icon"
    aria-label={msg.view_controls_fit_the_run}
    title={msg.view_controls_fit_the_run}
    disabled={view.zoom <= 1}
    onclick={() => view.whole()}><Expand size={20} /></button
  >
</div>
