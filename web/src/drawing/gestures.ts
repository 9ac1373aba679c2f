// One pointer pans, two pinch, a tap picks; the wheel is each drawing's own.

interface Gestures {
  pan: (dx: number, dy: number) => void
  /** Zoom by a factor about a place in the drawing. */
  zoom: (factor: number, x: number, y: number) => void
  tap: (x: number, y: number) => void
  wheel: (e: WheelEvent, x: number, y: number) => void
}

const STILL = 4 // pixels that a tap may wander

/** Follows the pointers over a drawing. */
export function gestures(g: Gestures) {
  return (node: SVGElement) => {
    const pointers: Record<number, { x: number; y: number }> = {}
    let moved = 0
    const here = (e: { clientX: number; clientY: number }) => {
      const box = node.getBoundingClientRect()
      return { x: e.clientX - box.left, y: e.clientY - box.top }
    }
    const down = (e: PointerEvent) => {
      if (e.button !== 0) return
      node.setPointerCapture(e.pointerId)
      pointers[e.pointerId] = here(e)
      moved = 0
    }
    const move = (e: PointerEvent) => {
      const was = pointers[e.pointerId]
      if (!was) return
      const now = here(e)
      const other = Object.entries(pointers).find(([id]) => Number(id) !== e.pointerId)?.[1]
      moved += Math.abs(now.x - was.x) + Math.abs(now.y - was.y)
      if (other) {
        const far = (p: { x: number; y: number }) => Math.hypot(p.x - other.x, p.y - other.y) + 20
        g.zoom(far(now) / far(was), (now.x + other.x) / 2, (now.y + other.y) / 2)
      } else if (moved > STILL) g.pan(now.x - was.x, now.y - was.y)
      pointers[e.pointerId] = now
    }
    const up = (e: PointerEvent) => {
      if (!pointers[e.pointerId]) return
      delete pointers[e.pointerId]
      const p = here(e)
      if (e.type === 'pointerup' && moved <= STILL) g.tap(p.x, p.y)
    }
    const wheel = (e: WheelEvent) => {
      const p = here(e)
      g.wheel(e, p.x, p.y)
    }
    node.addEventListener('pointerdown', down)
    node.addEventListener('pointermove', move)
    node.addEventListener('pointerup', up)
    node.addEventListener('pointercancel', up)
    node.addEventListener('wheel', wheel, { passive: false })
    return () => {
      node.removeEventListener('pointerdown', down)
      node.removeEventListener('pointermove', move)
      node.removeEventListener('pointerup', up)
      node.removeEventListener('pointercancel', up)
      node.removeEventListener('wheel', wheel)
    }
  }
}
