// Dragging to sensible marks: no finer than a pixel can mean.
import { INCH } from '../lib/tape'
import type { Units } from '../gen/api'

/** Rounds to the finest tape mark that is at least a pixel wide. */
export function snap(mm: number, mmPerPixel: number, units: Units): number {
  const marks =
    units.system === 'metric'
      ? [1, 5, 10, 50, 100, 500, 1000]
      : [INCH / 16, INCH / 8, INCH / 4, INCH / 2, INCH, 3 * INCH, 6 * INCH, 12 * INCH]
  const mark = marks.find((m) => m >= units.smallestMark && m >= mmPerPixel) ?? marks[marks.length - 1]!
  return Math.round(mm / mark) * mark
}

interface Drag {
  start?: () => void
  move: (dx: number, dy: number) => void
  end: () => void
  cancel: () => void
}

/** Follows one pointer from press to release, or until Escape is pressed. */
export function dragging(d: Drag) {
  return (node: SVGElement) => {
    let from: { x: number; y: number; id: number } | null = null
    const down = (e: PointerEvent) => {
      if (e.button !== 0) return
      e.stopPropagation()
      e.preventDefault()
      node.focus()
      node.setPointerCapture(e.pointerId)
      from = { x: e.clientX, y: e.clientY, id: e.pointerId }
      d.start?.()
    }
    const move = (e: PointerEvent) => {
      if (from?.id !== e.pointerId) return
      e.stopPropagation()
      d.move(e.clientX - from.x, e.clientY - from.y)
    }
    const up = (e: PointerEvent) => {
      if (from?.id !== e.pointerId) return
      e.stopPropagation()
      const still = e.clientX === from.x && e.clientY === from.y
      from = null
      if (e.type === 'pointercancel' || still) d.cancel()
      else d.end()
    }
    // What was begun can be given up.
    const key = (e: KeyboardEvent) => {
      if (!from || e.key !== 'Escape') return
      e.stopPropagation()
      node.releasePointerCapture(from.id)
      from = null
      d.cancel()
    }
    node.addEventListener('keydown', key)
    node.addEventListener('pointerdown', down)
    node.addEventListener('pointermove', move)
    node.addEventListener('pointerup', up)
    node.addEventListener('pointercancel', up)
    return () => {
      node.removeEventListener('keydown', key)
      node.removeEventListener('pointerdown', down)
      node.removeEventListener('pointermove', move)
      node.removeEventListener('pointerup', up)
      node.removeEventListener('pointercancel', up)
    }
  }
}
