// A leaf held at an angle, between the angles that the plan gives.
import type { GateLeaf, LeafGround, LeafSide, PlannedGate } from '../gen/api'

/** The ground under a leaf at an angle of its swing. */
export function under(s: LeafSide, angle: number): LeafGround {
  const last = s.angles.length - 1
  const a = Math.min(Math.max(angle, 0), s.angles[last]!)
  const k = Math.max(
    1,
    s.angles.findIndex((b) => b >= a),
  )
  const [low, high] = [s.ground[k - 1]!, s.ground[k]!]
  const t = (a - s.angles[k - 1]!) / (s.angles[k]! - s.angles[k - 1]!)
  const mix = (p: number, q: number) => p + (q - p) * t
  return {
    bottom: mix(low.bottom, high.bottom),
    heights: low.heights.map((h, i) => mix(h, high.heights[i]!)),
    gap: mix(low.gap, high.gap),
    out: mix(low.out, high.out),
  }
}

/** Where a point of the leaf stands, so far from its pins: along the run and off it. */
export function standing(l: GateLeaf, angle: number, out: number) {
  const a = (angle * Math.PI) / 180
  return { at: l.pin + (l.ahead ? 1 : -1) * out * Math.cos(a), off: out * Math.sin(a) }
}

/** The side that a signed angle swings to: in is positive, out is negative. */
export const sideOf = (l: GateLeaf, angle: number) =>
  l.sides.find((s) => s.side === (angle < 0 ? 'out' : 'in')) ?? l.sides[0]

/** How far a gate can be swung, out and in. */
export const range = (g: PlannedGate) => ({
  least: g.swing === 'in' ? 0 : -g.open,
  most: g.swing === 'out' ? 0 : g.open,
})
