// A scene's shapes as SVG paths. What a thing is
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

/** How a mark's sign is turned. */
export const turned = (m: Mark) => (m.turn ? ` rotate(${-m.turn})` : '')
