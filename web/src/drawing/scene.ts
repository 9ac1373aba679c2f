// A scene's shapes as SVG paths, and the signs of its marks. What a thing is
// decides how it looks: scene.css.
import type { Axis, DrawnLayer as Layer, DrawnMark as Mark } from '../gen/api'

/** Where millimetres lie on the screen. */
export interface Place {
  x: Axis
  y: Axis
}

const n = (v: number) => Math.round(v * 10) / 10

export const across = (p: Place, mm: number) => p.x.zero + mm * p.x.scale
export const down = (p: Place, mm: number) => p.y.zero - mm * p.y.scale

/** All shapes of a layer as one path: that keeps a long run light. */
export function path(layer: Layer, p: Place): string {
  const { zero: x0, scale: sx } = p.x
  const { zero: y0, scale: sy } = p.y
  let out = ''
  for (const { points } of layer.shapes) {
    let [from, scale] = [x0, sx]
    if (layer.least) {
      // Never thinner than can be seen: it grows about its middle.
      let [low, high] = [points[0]!, points[0]!]
      for (let i = 2; i < points.length; i += 2) {
        if (points[i]! < low) low = points[i]!
        else if (points[i]! > high) high = points[i]!
      }
      const wide = (high - low) * sx
      if (wide < layer.least && high > low) {
        scale = layer.least / (high - low)
        from = x0 + ((low + high) / 2) * (sx - scale)
      }
    }
    out += `M${n(from + points[0]! * scale)} ${n(y0 - points[1]! * sy)}`
    for (let i = 2; i < points.length; i += 2)
      out += `L${n(from + points[i]! * scale)} ${n(y0 - points[i + 1]! * sy)}`
    if (layer.area) out += 'z'
  }
  return out
}

/** How thick a line of a layer is that has a thickness of its own, pixels. */
export const thickness = (layer: Layer, p: Place) =>
  Math.min(Math.max((layer.thick ?? 0) * p.y.scale, layer.least ?? 1.2), layer.least ? 40 : 9)

/** Signs, in pixels about their place. */
const signs: Record<string, string> = {
  joint: 'M0 -6V6',
  post: 'M-2.6 -2.6h5.2v5.2h-5.2z',
  hits: 'M-3.4 -3.4h6.8v6.8h-6.8z',
  jamb: 'M0 -6V6',
  service: 'M0 -15V15',
  corner: '',
  tied: 'M-3.2 0a3.2 3.2 0 1 0 6.4 0a3.2 3.2 0 1 0 -6.4 0z',
  'batter-board': 'M0 -9V9M0 -7h5M0 7h5',
  ring: 'M-5.5 0a5.5 5.5 0 1 0 11 0a5.5 5.5 0 1 0 -11 0z',
  held: 'M-8 -15H8M0 -15V6',
  prop: 'M-6 0H6',
  'old-post': 'M-4 -40h8v64h-8z',
  hinge: 'M-14 0H22',
  'pin-up': 'M0 0V-9',
  'pin-down': 'M0 0V9',
  latch: 'M-7 -4H7V4H-7z',
  cross: 'M-6 -6L6 6M6 -6L-6 6',
  broken: 'M-26 4L26 -4',
  reference: 'M0 0l-12 -8v16z',
  now: 'M-4.5 0a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0z',
  moves: 'M-8 -5L0 0L-8 5',
}
/** From the side a service's mark is a flag over the ground. */
const flag = 'M0 0V-9l13 -6v-11l-13 6z'

export const sign = (m: Mark, side: boolean) =>
  side && m.class === 'service' ? flag : (signs[m.class] ?? '')

/** From above, a mark's sign lies as its line does; its way across is up. */
export const turned = (m: Mark) => (m.turn ? ` rotate(${-m.turn})` : '')
