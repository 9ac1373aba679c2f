// Nudging by keys, mark by mark; in quick succession it is one revision.
import type { Units } from '../gen/api'

const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowDown: -1,
  ArrowRight: 1,
  ArrowUp: 1,
  PageUp: 16,
  PageDown: -16,
}

interface Nudge {
  units: () => Units
  /** Called at the first key of several. */
  start: () => void
  by: (mm: number) => void
  settle: () => void
}

/** Returns what handles a key; it answers whether the key was one of its own. */
export function nudging(n: Nudge): (e: KeyboardEvent) => boolean {
  let waiting: ReturnType<typeof setTimeout> | undefined
  return (e) => {
    const step = STEPS[e.key]
    if (!step) return false
    e.preventDefault()
    e.stopPropagation()
    if (!waiting) n.start()
    n.by(step * (e.shiftKey ? 16 : 1) * n.units().smallestMark)
    clearTimeout(waiting)
    waiting = setTimeout(() => {
      waiting = undefined
      n.settle()
    }, 500)
    return true
  }
}
