// The plan as SVG paths. One path for each material keeps a long run light.
import type { PlannedBay, PlannedPost, PlannedRun } from '../gen/api'
import { groundAt } from './ground'
import { layerPath } from './hole'
import type { View } from './view.svelte'

const n = (v: number) => v.toFixed(1)

const rect = (x: number, y: number, w: number, h: number) =>
  h > 0.05 && w > 0 ? `M${n(x)} ${n(y)}h${n(w)}v${n(h)}h${n(-w)}z` : ''

export interface Drawn {
  ground: string
  surface: string
  finished: string
  frost: string
  frostLine: string
  soil: string
  concrete: string
  gravel: string
  stone: string
  postsBelow: string
  postsAbove: string
  panels: string
  rails: string
  leaves: string
  braces: string
  string: string
  boards: string
  infill: string
  fill: string
  cut: string
}

/** The posts and bays in sight, with one to spare either side. */
export function inSight(run: PlannedRun, view: View): { first: number; last: number } {
  const posts = run.posts
  let first = posts.findIndex((p) => p.station >= view.from)
  if (first < 0) first = posts.length
  let last = posts.findIndex((p) => p.station > view.to)
  if (last < 0) last = posts.length
  return { first: Math.max(0, first - 1), last: Math.min(posts.length - 1, last) }
}

/** Draws a run; `rows` is how many rails lie one over the other where rails are all there is. */
export function draw(run: PlannedRun, view: View, rows = 0): Drawn {
  const d: Drawn = {
    ground: '',
    surface: '',
    finished: '',
    frost: '',
    frostLine: '',
    soil: '',
    concrete: '',
    gravel: '',
    stone: '',
    postsBelow: '',
    postsAbove: '',
    panels: '',
    rails: '',
    leaves: '',
    braces: '',
    string: '',
    boards: '',
    infill: '',
    fill: '',
    cut: '',
  }
  drawGround(d, run, view)
  if (!run.posts.length) return d
  const { first, last } = inSight(run, view)
  for (let i = first; i <= last; i++) drawPost(d, run, run.posts[i]!, view)
  for (let i = first; i < last; i++) {
    drawBay(d, run, run.bays[i]!, run.posts[i]!, run.posts[i + 1]!, view, rows)
  }
  return d
}

/** The surface between two stations, as path points. */
function surface(run: PlannedRun, from: number, to: number, view: View): string[] {
  return run.ground
    .filter((g) => g.at > from && g.at < to)
    .map((g) => `${n(view.x(g.at))} ${n(view.y(g.height))}`)
}

function drawGround(d: Drawn, run: PlannedRun, view: View) {
  const g = run.ground.length
    ? run.ground
    : [
        { at: 0, height: 0 },
        { at: view.length, height: 0 },
      ]
  const inside = cutToSight(g, view)
  const at = (drop: number) => inside.map((p) => `${n(view.x(p.at))} ${n(view.y(p.height - drop))}`)
  d.surface = 'M' + at(0).join('L')
  d.ground = `${d.surface}V2000H${n(view.x(inside[0]!.at))}z`
  if (run.frost) {
    // Frost goes down from the ground as it will be.
    const after = run.finished?.length ? cutToSight(run.finished, view) : inside
    const below = after.map((p) => `${n(view.x(p.at))} ${n(view.y(p.height - run.frost!))}`)
    d.frostLine = 'M' + below.join('L')
    d.frost = `${d.surface}L${below.reverse().join('L')}z`
  }
  if (run.finished?.length)
    d.finished =
      'M' +
      cutToSight(run.finished, view)
        .map((p) => `${n(view.x(p.at))} ${n(view.y(p.height))}`)
        .join('L')
}

/** The profile cut to what is in sight, so that coordinates stay small. */
function cutToSight(g: { at: number; height: number }[], view: View) {
  const from = view.from - 10
  const to = view.to + 10
  return [
    { at: from, height: groundAt(g, from) },
    ...g.filter((p) => p.at > from && p.at < to),
    { at: to, height: groundAt(g, to) },
  ]
}

/** How a layer is drawn. */
const looks: Record<string, 'gravel' | 'concrete' | 'stone' | 'soil'> = {
  gravel: 'gravel',
  concrete: 'concrete',
  crown: 'concrete',
  'rocks in slurry': 'stone',
  'large stone': 'stone',
  'middle stone': 'stone',
  'small stone': 'gravel',
  soil: 'soil',
}

function drawPost(d: Drawn, run: PlannedRun, p: PlannedPost, view: View) {
  const x = view.x(p.station)
  const post = Math.max(p.width * view.scale, 3)
  const y = (depth: number) => view.y(p.ground - depth)
  d.postsBelow += rect(x - post / 2, y(0), post, y(p.foot) - y(0))
  d.postsAbove += rect(x - post / 2, view.y(p.top), post, y(0) - view.y(p.top))
  const card = run.cards[p.card]
  if (!card || !p.holeDepth) return
  // A hole is never drawn thinner than can be seen.
  const wide = Math.max(1, 5 / (p.holeWidth * view.scale))
  const across = (off: number) => view.x(p.station) + (card.along ?? 0) * view.scale + off * view.scale * wide
  for (const l of card.layers) {
    const look = looks[l.kind]
    if (look && l.to > 0) d[look] += layerPath(card, Math.max(0, l.from), l.to, across, y)
  }
}

function drawBay(
  d: Drawn,
  run: PlannedRun,
  b: PlannedBay,
  p: PlannedPost,
  q: PlannedPost,
  view: View,
  rows: number,
) {
  const [x1, x2] = [view.x(p.station), view.x(q.station)]
  const [t1, t2] = [view.y(b.topStart), view.y(b.topEnd)]
  const [b1, b2] = [view.y(b.bottomStart), view.y(b.bottomEnd)]
  const outline = `M${n(x1)} ${n(t1)}L${n(x2)} ${n(t2)}L${n(x2)} ${n(b2)}L${n(x1)} ${n(b1)}z`
  if (b.gate) {
    d.leaves += outline
    for (const l of run.gates.find((g) => g.id === b.gate)?.leaves ?? []) {
      // A strut presses, up from the hinges; a tie pulls, down from them.
      const [near, far] = [l.heel, l.reach].map((o) => view.x(l.pin + (l.ahead ? o : -o))) as [number, number]
      const strut = l.brace?.kind === 'strut'
      if (l.brace?.kind !== 'unbraced')
        d.braces += `M${n(near)} ${n(strut ? b1 : t1)}L${n(far)} ${n(strut ? t2 : b2)}`
      d.leaves += `M${n(far)} ${n(t2)}L${n(far)} ${n(b2)}`
    }
  } else if (rows) {
    for (let r = 0; r < rows; r++) {
      const part = (r + 0.6) / (rows + 0.2)
      d.rails += `M${n(x1)} ${n(b1 + (t1 - b1) * part)}L${n(x2)} ${n(b2 + (t2 - b2) * part)}`
    }
  } else d.panels += outline
  d.string += `M${n(x1)} ${n(t1)}L${n(x2)} ${n(t2)}`
  const between = surface(run, p.station, q.station, view)
  const under = [`${n(x1)} ${n(view.y(p.ground))}`, ...between, `${n(x2)} ${n(view.y(q.ground))}`]
  // Gravel boards at the foot, part of the fence; and those that close a step, under it.
  for (let k = 1; k <= (b.boards ?? 0); k++) {
    const up = k * b.board! * view.rise
    d.boards += `M${n(x1)} ${n(b1 - up)}L${n(x2)} ${n(b2 - up)}`
  }
  if (b.infill?.kind === 'gravel boards') {
    for (let k = 1; k <= b.infill.boards; k++) {
      const down = k * b.infill.board * view.rise
      d.infill += `M${n(x1)} ${n(b1)}V${n(b1 + down)}H${n(x2)}V${n(b1)}z`
    }
  } else if (b.infill) {
    const first = p.station + (b.centreToCentre - b.infill.long) / 2
    const under = b.infill.marks.map((m) => `${n(view.x(first + m.at))} ${n(b1 + m.under * view.rise)}`)
    d.infill += `M${n(x1)} ${n(b1)}L${under.join('L')}L${n(x2)} ${n(b1)}z`
  }
  if (b.fill) d.fill += `M${under.join('L')}L${n(x2)} ${n(b2)}L${n(x1)} ${n(b1)}z`
  if (b.cut) d.cut += `M${under.join('L')}L${n(x2)} ${n(b2)}L${n(x1)} ${n(b1)}z`
}
