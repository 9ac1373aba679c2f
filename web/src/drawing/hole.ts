// A hole cut through its middle: its sides, and the outline of what lies in it.
import type { HoleCard } from '../gen/api'

/** The hole's width at a depth. */
export function widthAt(card: HoleCard, depth: number): number {
  const cuts = card.cuts
  if (!cuts.length) return card.width
  if (depth <= cuts[0]!.depth) return cuts[0]!.width
  for (let i = 1; i < cuts.length; i++) {
    const [a, b] = [cuts[i - 1]!, cuts[i]!]
    if (depth <= b.depth)
      return a.width + ((b.width - a.width) * (depth - a.depth)) / (b.depth - a.depth || 1)
  }
  return cuts[cuts.length - 1]!.width
}

/** Points down one side between two depths, as half widths. */
function side(card: HoleCard, from: number, to: number): [number, number][] {
  const inside = card.cuts.filter((c) => c.depth > from && c.depth < to).map((c) => c.depth)
  // Just under its top: a bell ends where the gravel begins.
  return [from, ...inside, to].map((d, i) => [d, widthAt(card, i ? d : d + 1e-6) / 2])
}

const n = (v: number) => v.toFixed(1)

/**
 * The outline of a layer between two depths; x and y turn millimetres off the
 * hole's middle and depths into places on the drawing.
 */
export function layerPath(
  card: HoleCard,
  from: number,
  to: number,
  x: (off: number) => number,
  y: (depth: number) => number,
): string {
  const down = side(card, from, to)
  const right = down.map(([d, w]) => `${n(x(w))} ${n(y(d))}`)
  const left = down.map(([d, w]) => `${n(x(-w))} ${n(y(d))}`).reverse()
  return `M${[...right, ...left].join('L')}z`
}
