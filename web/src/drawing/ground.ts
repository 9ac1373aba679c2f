// The ground as it is drawn: straight between the points of the plan.

interface Point {
  at: number
  height: number
}

/** Height of the ground at a station; level beyond the outermost points. */
export function groundAt(ground: Point[], station: number): number {
  const first = ground[0]
  if (!first || station <= first.at) return first?.height ?? 0
  for (let i = 1; i < ground.length; i++) {
    const [a, b] = [ground[i - 1]!, ground[i]!]
    if (station <= b.at)
      return a.height + ((b.height - a.height) * (station - a.at)) / Math.max(b.at - a.at, 1e-9)
  }
  return ground[ground.length - 1]!.height
}
