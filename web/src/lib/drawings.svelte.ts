// The drawings that are open, drawn by the core: with every plan, and when
// what is looked at changes. One question at a time, the latest wins.
import type { Axis, Drawing, Job, View } from '../gen/api'
import { api, Gone, Refused } from './api'

/** A drawing that is open. */
interface Open {
  view: View
  /** What was asked for last, and of which document. */
  asked?: View
  of?: Job
}

/** A place that differs by less than a pixel is the same: what is drawn goes along by itself. */
function same(a: View, b: View): boolean {
  const [{ frame: f, ...rest }, { frame: g, ...others }] = [a, b]
  const near = (p: Axis | undefined, q: Axis | undefined, length: number) =>
    p === q ||
    (!!p &&
      !!q &&
      Math.abs(p.zero - q.zero) < 1 &&
      Math.abs(p.scale - q.scale) * length < p.scale &&
      Math.abs(p.zero * (1 - q.scale / p.scale)) < 1)
  return (
    f.width === g.width &&
    f.height === g.height &&
    f.top === g.top &&
    near(f.x, g.x, f.width) &&
    near(f.y, g.y, f.height) &&
    JSON.stringify(rest) === JSON.stringify(others)
  )
}

export class Drawings {
  private readonly open: Record<number, Open> = {}
  private shown = $state.raw<Record<number, Drawing | null>>({})
  private last = 0
  private asking = $state(false)

  /** The document whose plan is drawn, once there is one. */
  constructor(private readonly doc: () => Job | undefined) {}

  /**
   * Keeps a drawing of a view for as long as the component lives; call it while
   * the component is made. No view: nothing is drawn.
   */
  keep(view: () => View | undefined): () => Drawing | undefined {
    const id = ++this.last
    $effect.pre(() => {
      const v = view()
      if (!v) delete this.open[id]
      else {
        const known = this.open[id]
        if (known && same(known.view, v)) return
        if (known) known.view = v
        else this.open[id] = { view: v }
        this.ask()
      }
    })
    $effect(() => () => {
      delete this.open[id]
    })
    return () => this.shown[id] ?? undefined
  }

  private ids(): number[] {
    return Object.keys(this.open).map(Number)
  }

  /** All that is open is drawn as it is looked at. */
  get settled(): boolean {
    return !this.asking
  }

  /** What is open, for who plans again. */
  wanted(): { ids: number[]; views: View[] } {
    const ids = this.ids()
    return { ids, views: ids.map((id) => this.open[id]!.view) }
  }

  /** Shows drawings of a document, in the order of what was wanted. */
  show(doc: Job, wanted: { ids: number[]; views: View[] }, drawings: (Drawing | null)[]) {
    const next: Record<number, Drawing | null> = {}
    for (const id of this.ids()) next[id] = this.shown[id] ?? null
    wanted.ids.forEach((id, i) => {
      const o = this.open[id]
      if (!o) return
      next[id] = drawings[i] ?? null
      o.asked = wanted.views[i]
      o.of = doc
    })
    this.shown = next
    this.ask()
  }

  /** Asks for what is open and not drawn as it is looked at. */
  private ask() {
    if (this.asking) return
    this.asking = true
    queueMicrotask(() => void this.askNow())
  }

  private async askNow() {
    try {
      for (;;) {
        const doc = this.doc()
        const ids = this.ids().filter(
          (id) => this.open[id]!.asked !== this.open[id]!.view || this.open[id]!.of !== doc,
        )
        if (!doc || !ids.length) return
        const wanted = { ids, views: ids.map((id) => this.open[id]!.view) }
        const { drawings } = await api.draw({ doc, views: wanted.views })
        if (doc === this.doc()) this.show(doc, wanted, drawings)
      }
    } catch (e) {
      // What is shown stays until the next plan or look.
      if (!(e instanceof Gone || e instanceof Refused)) throw e
    } finally {
      this.asking = false
    }
  }
}
