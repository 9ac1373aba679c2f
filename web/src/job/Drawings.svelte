<script lang="ts">
  // The line from the side, and from above beside it, in the height that the
  // work leaves.
  import Fence from '@lucide/svelte/icons/fence'
  import MapIcon from '@lucide/svelte/icons/map'
  import Elevation from '../drawing/Elevation.svelte'
  import FindingFlag from '../drawing/FindingFlag.svelte'
  import ViewControls from '../drawing/ViewControls.svelte'
  import type { View } from '../drawing/view.svelte'
  import { layout, type Height } from '../lib/layout.svelte'
  import type { Session } from '../lib/session.svelte'
  import type { MapView } from '../map/mapview.svelte'
  import SiteMap from '../map/SiteMap.svelte'
  import Splitter from './Splitter.svelte'
  import * as msg from '../gen/messages'

  let { session, view, map }: { session: Session; view: View; map: MapView } = $props()
  const stage = $derived(session.nav.stage)
  /** On a small screen one of the two drawings is shown. */
  let fromAbove = $state(false)
  let mapLarge = $state(false)
  let dragged = $state<number | null>(null)
  let screen = $state({ width: innerWidth, height: innerHeight })
  let rem = $state(16)
  $effect(() => {
    void layout.site
    rem = parseFloat(getComputedStyle(document.documentElement).fontSize)
  })
  // What the work takes at least: 420 pixels of bench, and the rows over it.
  const BENCH = 420
  const at = (h: Height): number => {
    const { width, height } = screen
    const wide = width >= 64 * rem
    // At a hole the work is what is looked at.
    if (h === 'strip' || (h === 'half' && !wide && stage === 'log')) return 8.25 * rem
    if (h === 'full') return Math.max(12 * rem, height - (wide ? 10 : 12) * rem)
    if (!wide) return Math.min(Math.max(height * 0.27, 9 * rem), 16 * rem)
    const rows = (width >= 80 * rem ? 6.9 : 9.9) * rem
    return Math.min(Math.max(height - rows - BENCH, 8.25 * rem), height * 0.45)
  }
  const tall = $derived(dragged ?? at(layout.height))
</script>

<svelte:window onresize={() => (screen = { width: innerWidth, height: innerHeight })} />

<div class="flex flex-none flex-col max-lg:sticky max-lg:top-0 max-lg:z-20" style:--drawn="{tall + 6}px">
  <section
    class="grid flex-none {layout.map
      ? mapLarge
        ? 'lg:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]'
        : 'lg:grid-cols-[minmax(0,1fr)_19rem]'
      : ''}"
    style:height="{tall}px"
    aria-label={msg.drawings_drawing}
    id="drawing"
    tabindex="-1"
  >
    <div class="flex min-h-0 min-w-0 {fromAbove ? 'max-lg:hidden' : ''}">
      <div class="relative min-h-0 min-w-0 flex-1">
        {#key session}
          <Elevation {session} {view} {stage}>
            {#snippet empty()}
              <p
                class="pointer-events-none absolute inset-x-4 top-8 text-center text-[1.1rem] font-medium text-pencil"
              >
                {msg.drawings_the_fence_is_drawn_here}
              </p>
            {/snippet}
          </Elevation>
        {/key}
        <FindingFlag {session} {view} {stage} />
      </div>
      {#if session.run.posts.length}<ViewControls {view} {session} left={view.left} />{/if}
    </div>
    <div
      class="relative min-h-0 min-w-0 border-ink lg:border-l-2 {fromAbove ? '' : 'max-lg:hidden'} {layout.map
        ? ''
        : 'lg:hidden'}"
      aria-label={msg.drawings_from_above}
      role="group"
    >
      {#key session}<SiteMap {session} view={map} strings={stage === 'string'} />{/key}
      <div
        class="absolute right-1 bottom-1 flex border border-line bg-sheet"
        role="group"
        aria-label={msg.drawings_map_view}
      >
        <button
          class="btn btn-plain px-2 text-[0.88rem] max-lg:hidden"
          aria-pressed={mapLarge}
          onclick={() => (mapLarge = !mapLarge)}
          >{mapLarge ? msg.drawings_smaller : msg.drawings_larger}</button
        >
        <button
          class="btn btn-plain px-2 text-[0.88rem]"
          aria-label={msg.drawings_fit_the_whole_site}
          onclick={() => map.whole()}>{msg.drawings_fit}</button
        >
        <button
          class="btn btn-plain px-2 text-[0.88rem] max-lg:hidden"
          aria-label={msg.common_hide_the_site_map}
          onclick={() => layout.set({ map: false })}>{msg.drawings_hide}</button
        >
      </div>
    </div>
    <button
      class="btn btn-icon absolute top-1 left-1 z-10 lg:hidden"
      aria-label={fromAbove ? msg.drawings_from_the_side : msg.drawings_from_above}
      onclick={() => (fromAbove = !fromAbove)}
      >{#if fromAbove}<Fence size={20} />{:else}<MapIcon size={20} />{/if}</button
    >
  </section>
  <Splitter now={() => tall} {at} ondrag={(px) => (dragged = px)} />
</div>
