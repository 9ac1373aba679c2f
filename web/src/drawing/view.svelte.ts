// Where on the run the drawing looks, and how millimetres become pixels. It
// outlives stages and edits, so that changing either keeps the place.
import type { PlannedRun, SetPost } from '../gen/api'

/** The tape under a low drawing has one row less. */
export const tapeHeight = (height: number) => (height < 200 ? 38 : 62)
const MARGIN = 28 // pixels kept free at either end of the run when it fits
const BELOW = 27 // kept free below the holes, for what is to be checked

export class View {
  width = $state(800)
  height = $state(360)
  /** 1 fits the whole run. */
  zoom = $state(1)
  /** Station at the middle of the drawing. */
  middle = $state(0)
  trueScale = $state(false)
  private lift = $state(0) // pixels, only where the true scale is taller than the drawing

  constructor(
    private readonly of: () => PlannedRun,
    /** Whether corners are named above the drawing. */
    private readonly folded: () => boolean = () => false,
  ) {}

  readonly span = $derived.by(() => {
    const run = this.of()
    let high = 0
    let low = 0
    run.posts.forEach((p, i) => {
      high = i ? Math.max(high, p.top) : p.top
      low = i ? Math.min(low, p.ground - p.holeDepth) : p.ground - p.holeDepth
    })
    for (const g of run.ground) {
      high = Math.max(high, g.height)
      low = Math.min(low, g.height - (run.frost ?? 0))
    }
    return run.posts.length ? { high, low } : { high: 1800, low: -1200 }
  })

  readonly length = $derived.by(() => Math.max(1, this.of().length))
  readonly fit = $derived(Math.max(1e-6, (this.width - 2 * MARGIN) / this.length))
  /** Pixels per millimetre along the run. */
  readonly scale = $derived(this.fit * this.zoom)
  /** Pixels kept free above the fence, for dimensions. */
  readonly above = $derived.by(() => (this.height < 200 ? 22 : 40) + (this.folded() ? 30 : 0))
  readonly tape = $derived(tapeHeight(this.height))
  /** How far each post is at the time that the pour is looked at. */
  set = $state.raw<SetPost[] | undefined>()
  /** Labels that had no room. */
  left = $state(0)
  readonly room = $derived(Math.max(40, this.height - this.tape - this.above - BELOW))
  /** Pixels per millimetre of height. */
  readonly rise = $derived(this.trueScale ? this.scale : this.room / (this.span.high - this.span.low))
  readonly stretch = $derived(this.rise / this.scale)
  readonly center = $derived.by(() => {
    const half = this.width / 2 / this.scale - MARGIN / this.scale
    return half >= this.length / 2
      ? this.length / 2
      : Math.min(Math.max(this.middle, half), this.length - half)
  })
  readonly from = $derived(this.center - this.width / 2 / this.scale)
  readonly to = $derived(this.center + this.width / 2 / this.scale)

  x = (mm: number) => this.width / 2 + (mm - this.center) * this.scale
  station = (x: number) => this.center + (x - this.width / 2) / this.scale

  private readonly base = $derived.by(() => {
    const { high, low } = this.span
    if (!this.trueScale) return this.above + high * this.rise
    const tall = (high - low) * this.rise
    const slack = Math.max(0, (tall - this.room) / 2)
    return (
      this.above +
      this.room / 2 +
      ((high + low) / 2) * this.rise +
      Math.min(Math.max(this.lift, -slack), slack)
    )
  })

  /** Where millimetres lie on the drawing. */
  readonly place = $derived({
    x: { zero: this.width / 2 - this.center * this.scale, scale: this.scale },
    y: { zero: this.base, scale: this.rise },
  })

  y = (mm: number) => this.base - mm * this.rise
  heightAt = (y: number) => (this.base - y) / this.rise

  pan(dx: number, dy = 0) {
    this.middle = this.center - dx / this.scale
    if (this.trueScale) this.lift += dy
  }

  /** Zooms about a place in the drawing, which stays where it is. */
  zoomBy(factor: number, x = this.width / 2) {
    const at = this.station(x)
    this.zoom = Math.min(Math.max(this.zoom * factor, 1), Math.max(1, 1.2 / this.fit))
    this.middle = at - (x - this.width / 2) / this.scale
  }

  whole() {
    this.zoom = 1
    this.lift = 0
  }

  /** Brings a station into sight. */
  show(mm: number) {
    const edge = 60 / this.scale
    if (mm < this.from + edge) this.middle = mm + this.width / 2 / this.scale - edge
    else if (mm > this.to - edge) this.middle = mm - this.width / 2 / this.scale + edge
  }
}
