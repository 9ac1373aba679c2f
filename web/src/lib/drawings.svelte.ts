// The drawings that are open, drawn by the core: with every plan, and when
// what is looked at changes. One question at a time, the latest wins.
import type { Drawing, Job, View } from '../gen/api'
import { api, Gone, Refused } from './api'

/** A drawing that is open. */
interface Open {
  view: View
  /** What was asked for last, and of which document. */
  asked?: View
  of?: Job
}

export class Drawings {
  private readonly open: Record<number, Open> = {}
  private shown = $state.raw<Record<number, Drawing | null>>({})
  private last = 0
  private asking = false

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
