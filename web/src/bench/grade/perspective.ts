// Perspective along a line: what an eye sees that stands beside the line's
// end, some steps back from it, and looks along it.

export interface Eye {
  /** Height of the eye, how far back from the line's start it stands, and how far beside it: millimetres. */
  height: number
  back: number
  aside: number
  /** 1: the line lies to the left of the eye; −1: to the right. */
  side: 1 | -1
}

/** A place by its distance along the line, its height, and how far it lies behind the line's near face. */
export type Place = [distance: number, height: number, behind?: number]

export interface Point {
  x: number
  y: number
}

/** Nearer than this, nothing is drawn. */
const NEAREST = 300

/** Where a place is seen on a picture at a distance of one; undefined when it is behind the eye. */
export function seen(eye: Eye, [distance, height, behind = 0]: Place): Point | undefined {
  const d = distance + eye.back
  if (d < NEAREST) return undefined
  return { x: (-eye.side * (eye.aside + behind)) / d, y: -(height - eye.height) / d }
}

export interface Frame {
  wide: number
  high: number
  /** 1 shows all of it. */
  closer: number
}

/** Puts what is seen on a sheet: all of it at first, and closer about a place further on. */
export function framed(all: Point[], about: Point, f: Frame): (p: Point) => Point {
  const [xs, ys] = [all.map((p) => p.x), all.map((p) => p.y)]
  const box = { l: Math.min(...xs), r: Math.max(...xs), t: Math.min(...ys), b: Math.max(...ys) }
  const whole = Math.min(
    (0.9 * f.wide) / Math.max(1e-9, box.r - box.l),
    (0.88 * f.high) / Math.max(1e-9, box.b - box.t),
  )
  const part = 1 - 1 / f.closer
  const middle = { x: (box.l + box.r) / 2, y: (box.t + box.b) / 2 }
  const centre = { x: middle.x + (about.x - middle.x) * part, y: middle.y + (about.y - middle.y) * part }
  const zoom = whole * f.closer
  const round = (v: number) => Math.round(10 * v) / 10
  return (p) => ({
    x: round(f.wide / 2 + (p.x - centre.x) * zoom),
    y: round(f.high / 2 + (p.y - centre.y) * zoom),
  })
}
