// How a corner is said.
import type { PlannedCorner } from '../gen/api'

export const degrees = (d: number) =>
  `${(Math.round(d * 100) / 100).toFixed(Math.abs(d % 1) < 0.005 ? 0 : 2)}°`

/** "89.50° left", from the straight-on line. */
export function turnText(c: PlannedCorner | undefined): string {
  if (!c || c.turn === undefined) return ''
  if (!c.side) return 'straight on'
  return `${degrees(Math.abs(c.turn))} ${c.side}`
}
