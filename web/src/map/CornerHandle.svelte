<script lang="ts">
  // A corner on the map: drag it, or nudge it mark by mark.
  import type { PlannedCorner, Units } from '../gen/api'
  import { dragging } from '../drawing/drag'
  import type { MapView, Spot } from './mapview.svelte'
  import * as msg from '../gen/messages'

  interface Props {
    corner: PlannedCorner
    view: MapView
    units: Units
    label: string
    onmove: (to: Spot) => void
    onsettle: (to: Spot) => void
    oncancel: () => void
    onnudge: (dx: number, dy: number) => void
  }
  let { corner, view, units, label, onmove, onsettle, oncancel, onnudge }: Props = $props()
  const x = $derived(view.x(corner.place))
  const y = $derived(view.y(corner.place))
  let from: Spot = { x: 0, y: 0 }
  let to: Spot = { x: 0, y: 0 }
  const drag = dragging({
    start: () => (from = to = corner.place),
    move: (dx, dy) => onmove((to = { x: from.x + dx / view.scale, y: from.y - dy / view.scale })),
    end: () => onsettle(to),
    cancel: () => oncancel(),
  })

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
    onnudge(way[0]! * step, way[1]! * step)
  }
</script>

<g
  {@attach drag}
  class="cursor-move touch-none"
  role="button"
  tabindex="0"
  aria-label={msg.corner_handle_drag_it_or_move_it({ label })}
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
