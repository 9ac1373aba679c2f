// Where the site map looks: millimetres on site to pixels, north or the map's
// up at the top.
import type { Plan } from '../gen/api'

export interface Spot {
  x: number
  y: number
}

export class MapView {
  width = $state(320)
  height = $state(240)
  /** 1 fits the whole site. */
  zoom = $state(1)
  private middle = $state.raw<Spot | null>(null)

  constructor(private readonly of: () => Plan) {}

  private readonly box = $derived.by(() => {
    const spots = this.of().lines.flatMap((l) => l.corners.map((c) => c.place))
    const ties = this.of().runs.flatMap((r) => (r.string ? [r.string.from, r.string.to] : []))
    const all = [...spots, ...ties]
    const [xs, ys] = [all.map((p) => p.x), all.map((p) => p.y)]
    const [left, right] = [Math.min(...xs, 0), Math.max(...xs, 1000)]
    const [low, high] = [Math.min(...ys, 0), Math.max(...ys, 1000)]
    return all.length && all.some((p) => p.x || p.y)
      ? { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) }
      : { left, right, low, high }
  })

  private readonly fitting = $derived.by(() => {
    const pad = Math.min(64, this.width * 0.16)
    return Math.min(
      Math.max(20, this.width - 2 * pad) / Math.max(1000, this.box.right - this.box.left),
      Math.max(20, this.height - 2 * Math.min(52, this.height * 0.2)) /
        Math.max(1000, this.box.high - this.box.low),
    )
  })
  /** While a hand drags, the map stays where it is under the hand. */
  private held = $state.raw<{ fit: number; center: Spot } | null>(null)
  hold() {
    this.held = { fit: this.fit, center: this.center }
  }
  release() {
    this.held = null
  }

  readonly fit = $derived(this.held?.fit ?? this.fitting)
  /** Pixels per millimetre. */
  readonly scale = $derived(this.fit * this.zoom)
  readonly center = $derived<Spot>(
    this.held?.center ??
      this.middle ?? { x: (this.box.left + this.box.right) / 2, y: (this.box.low + this.box.high) / 2 },
  )

  /** Where millimetres lie on the map. */
  readonly place = $derived({
    x: { zero: this.width / 2 - this.center.x * this.scale, scale: this.scale },
    y: { zero: this.height / 2 + this.center.y * this.scale, scale: this.scale },
  })

  x = (p: Spot) => this.width / 2 + (p.x - this.center.x) * this.scale
  y = (p: Spot) => this.height / 2 - (p.y - this.center.y) * this.scale
  spot = (x: number, y: number): Spot => ({
    x: this.center.x + (x - this.width / 2) / this.scale,
    y: this.center.y - (y - this.height / 2) / this.scale,
  })

  pan(dx: number, dy: number) {
    this.middle = { x: this.center.x - dx / this.scale, y: this.center.y + dy / this.scale }
  }

  zoomBy(factor: number, x = this.width / 2, y = this.height / 2) {
    const at = this.spot(x, y)
    this.zoom = Math.min(Math.max(this.zoom * factor, 0.5), 400)
    this.middle = {
      x: at.x - (x - this.width / 2) / this.scale,
      y: at.y + (y - this.height / 2) / this.scale,
    }
  }

  whole() {
    this.zoom = 1
    this.middle = null
  }
}
