<script lang="ts">
  // The edge between the drawing and the work: dragged, or moved by key, to one
  // of three heights.
  import { heights, layout, type Height } from '../lib/layout.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    /** How high the drawing is now, and would be at each height, pixels. */
    now: () => number
    at: (h: Height) => number
    /** While it is dragged: the height under the hand; null when it is let go. */
    ondrag: (px: number | null) => void
  }
  let { now, at, ondrag }: Props = $props()
  const names: Record<Height, string> = { strip: 'a strip', half: 'half', full: 'full' }
  let from: { y: number; height: number } | null = null
  let to = 0

  function down(e: PointerEvent & { currentTarget: HTMLElement }) {
    if (e.button !== 0) return
    e.currentTarget.setPointerCapture(e.pointerId)
    from = { y: e.clientY, height: now() }
    to = from.height
  }
  function move(e: PointerEvent) {
    if (!from) return
    to = Math.min(Math.max(from.height + e.clientY - from.y, at('strip')), at('full'))
    ondrag(to)
  }
  function up() {
    if (!from) return
    const far = (h: Height) => Math.abs(at(h) - to)
    layout.set({ height: [...heights].sort((a, b) => far(a) - far(b))[0] })
    from = null
    ondrag(null)
  }
  function key(e: KeyboardEvent) {
    if (e.key === 'ArrowDown') layout.step(1)
    else if (e.key === 'ArrowUp') layout.step(-1)
    else if (e.key === 'Home') layout.set({ height: 'strip' })
    else if (e.key === 'End') layout.set({ height: 'full' })
    else return
    e.preventDefault()
  }
</script>

<!-- A separator that can be moved takes the focus (WAI-ARIA). -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  role="separator"
  tabindex="0"
  aria-orientation="horizontal"
  aria-label={msg.common_height_of_the_drawing}
  aria-valuenow={heights.indexOf(layout.height)}
  aria-valuemin={0}
  aria-valuemax={2}
  aria-valuetext={names[layout.height]}
  title={msg.splitter_drag_the_edge_a_strip}
  class="group relative z-10 flex h-1.5 flex-none cursor-row-resize touch-none items-center justify-center bg-ink"
  onpointerdown={down}
  onpointermove={move}
  onpointerup={up}
  onpointercancel={up}
  onkeydown={key}
>
  <span class="absolute inset-x-0 -top-2 -bottom-2"></span>
  <span class="h-0.5 w-16 bg-paper"></span>
</div>
