// One-point perspective along a line: what an eye sees that stands beside the
// line's end and looks along it.

export interface Eye {
  /** Height of the eye, and how far back from the line's start it stands, in millimetres. */
  eye: number
  back: number
  /** How far beside the line. */
  aside: number
  /** What stands in the middle of the picture. */
  target: { distance: number; height: number }
  /** Pixels that a millimetre takes at a distance of one millimetre. */
  zoom: number
  wide: number
  high: number
  /** 1: the line lies to the left of the eye; −1: to the right. */
  side: 1 | -1
}

export interface Seen {
  x: number
  y: number
  /** Pixels to a millimetre there. */
  scale: number
}

/** Nearer than this, nothing is drawn. */
const NEAREST = 400

/** Returns where a place on the line, by its distance from the start and its height, is seen. */
export function sight(e: Eye): (distance: number, height: number) => Seen | undefined {
  // The eye turns towards its target; the angle is small, so that turning is
  // no more than moving the picture.
  const slope = (e.target.height - e.eye) / e.target.distance
  const turn = e.aside / e.target.distance
  return (distance, height) => {
    const d = distance + e.back
    if (d < NEAREST) return undefined
    const scale = e.zoom / d
    return {
      x: Math.round(10 * (e.wide / 2 - e.side * scale * (e.aside - turn * d))) / 10,
      y: Math.round(10 * (e.high / 2 - scale * (height - e.eye - slope * d))) / 10,
      scale,
    }
  }
}
