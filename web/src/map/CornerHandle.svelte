<script lang="ts">
  // A corner on the map: drag it, or nudge it mark by mark.
  import { Later } from '../lib/later'
  import type { PlannedCorner, Units } from '../gen/api'
  import { dragging } from '../drawing/drag'
  import type { MapView, Spot } from './mapview.svelte'

  interface Props {
    corner: PlannedCorner
    view: MapView
    units: Units
    label: string
    /** Nudged places are meant to the mark; dragged ones to what a pixel can mean. */
    onmove: (to: Spot, nudged: boolean) => void
    onsettle: (to: Spot, nudged: boolean) => void
    oncancel: () => void
  }
  let { corner, view, units, label, onmove, onsettle, oncancel }: Props = $props()
  const x = $derived(view.x(corner.place))
  const y = $derived(view.y(corner.place))
  let from: Spot = { x: 0, y: 0 }
  let to: Spot = { x: 0, y: 0 }
  const drag = dragging({
    start: () => (from = to = corner.place),
    move: (dx, dy) => onmove((to = { x: from.x + dx / view.scale, y: from.y - dy / view.scale }), false),
    end: () => onsettle(to, false),
    cancel: () => oncancel(),
  })

  // Nudges in quick succession are one revision.
  const later = new Later(() => onsettle(to, true))
  function key(e: KeyboardEvent) {
    const way = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    }[e.key]
    if (!way) return
    e.preventDefault()
    e.stopPropagation()
    const step = (e.shiftKey ? 16 : 1) * units.smallestMark
    const base = later.waiting ? to : corner.place
    to = { x: base.x + way[0]! * step, y: base.y + way[1]! * step }
    onmove(to, true)
    later.wait()
  }
</script>

<g
  {@attach drag}
  class="cursor-move touch-none"
  role="button"
  tabindex="0"
  aria-label="{label}; drag it, or move it with the arrow keys"
  onkeydown={key}
  data-corner={corner.after ?? `end of ${corner.before}`}
>
  <circle cx={x} cy={y} r="22" fill="transparent" />
  <rect
    x={x - 6.5}
    y={y - 6.5}
    width="13"
    height="13"
    class="fill-(--sheet) {corner.measured || !corner.before || !corner.after
      ? 'stroke-(--ink)'
      : 'stroke-(--warn)'}"
    stroke-width="2.6"
    stroke-dasharray={corner.measured || !corner.before || !corner.after ? 'none' : '3 2'}
  />
</g>
