// Nudging by keys, mark by mark; in quick succession it is one revision.
import type { Units } from '../gen/api'
import { Later } from '../lib/later'

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

/** What handles keys, and what forgets a nudge that is not settled yet. */
export function nudging(n: Nudge): { key: (e: KeyboardEvent) => void; forget: () => void } {
  const later = new Later(n.settle)
  return {
    forget: () => later.forget(),
    key: (e) => {
      const step = STEPS[e.key]
      if (!step) return
      e.preventDefault()
      e.stopPropagation()
      if (!later.waiting) n.start()
      n.by(step * (e.shiftKey ? 16 : 1) * n.units().smallestMark)
      later.wait()
    },
  }
}
