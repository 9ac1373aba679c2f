// How a corner is said.
import type { PlannedCorner } from '../gen/api'
import * as msg from '../gen/messages'

export const degrees = (d: number) =>
  `${(Math.round(d * 100) / 100).toFixed(Math.abs(d % 1) < 0.005 ? 0 : 2)}°`

/** "89.50° left", from the straight-on line. */
export function turnText(c: PlannedCorner | undefined): string {
  if (!c || c.turn === undefined) return ''
  if (!c.side) return msg.turn_straight_on
  return `${degrees(Math.abs(c.turn))} ${c.side}`
}
