// A leaf under the hand: where its tip is held at an angle, and the side that
// it swings to.
import type { GateLeaf, PlannedGate } from '../gen/api'

/** Where the leaf's tip stands: along the run, and off it to the inside. */
export function standing(l: GateLeaf, angle: number) {
  const a = (angle * Math.PI) / 180
  return { at: l.pin + (l.ahead ? 1 : -1) * l.reach * Math.cos(a), off: l.reach * Math.sin(a) }
}

/** The side that a signed angle swings to: in is positive, out is negative. */
export const sideOf = (l: GateLeaf, angle: number) =>
  l.sides.find((s) => s.side === (angle < 0 ? 'out' : 'in')) ?? l.sides[0]

/** How far a gate can be swung, out and in. */
export const range = (g: PlannedGate) => ({
  least: g.swing === 'in' ? 0 : -g.open,
  most: g.swing === 'out' ? 0 : g.open,
})
