// A whole line unrolled corner after corner into one long strip, so that it
// is drawn from the side like a single run.
import type { PlannedLine, PlannedRun } from '../gen/api'

export interface Strip {
  run: PlannedRun
  /** Which run of the line, and which of its posts, each drawn post is. */
  posts: { run: number; post: number }[]
  /** Where each run begins. */
  starts: number[]
}

export function unroll(line: PlannedLine, runs: PlannedRun[]): Strip {
  const first = runs[0]!
  const out: PlannedRun = {
    ...first,
    name: line.name,
    length: line.length,
    ground: [],
    inTheWay: [],
    posts: [],
    bays: [],
    cards: [],
    gates: [],
    segments: [],
    rails: [],
    setOut: undefined,
    string: undefined,
  }
  const posts: Strip['posts'] = []
  const starts: number[] = []
  runs.forEach((r, k) => {
    const before = out.cards.length
    out.cards.push(...r.cards)
    const s = r.start - first.start
    starts.push(s)
    r.ground.forEach((g, i) => {
      if (k === 0 || i > 0) out.ground.push({ ...g, at: g.at + s })
    })
    for (const o of r.inTheWay)
      out.inTheWay.push({
        ...o,
        from: o.from + s,
        to: o.to + s,
        handFrom: o.handFrom + s,
        handTo: o.handTo + s,
      })
    r.posts.forEach((p, i) => {
      // A shared corner post stands as the last of the run that ends there.
      if (i === 0 && out.posts.length) return
      out.posts.push({ ...p, station: p.station + s, card: p.card < 0 ? -1 : p.card + before })
      posts.push({ run: k, post: i })
    })
    // Gates of two runs may have one name: in the strip they have their run's too.
    for (const g of r.gates)
      out.gates.push({
        ...g,
        id: `${r.id}/${g.id}`,
        at: g.at + s,
        leaves: g.leaves.map((l) => ({ ...l, pin: l.pin + s })),
      })
    for (const b of r.bays)
      out.bays.push({
        ...b,
        gate: b.gate ? `${r.id}/${b.gate}` : undefined,
        gapLeast: { ...b.gapLeast, at: b.gapLeast.at + s },
        gapMost: { ...b.gapMost, at: b.gapMost.at + s },
      })
    for (const x of r.segments) out.segments.push({ ...x, from: x.from + s, to: x.to + s })
  })
  return { run: out, posts, starts }
}
