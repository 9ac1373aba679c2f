// The plan of a document, from the server: its figures at once, latest wins;
// what is said beside them and the ways out of its findings when the hand
// rests; the reasons of a figure when it is opened.
import type {
  Bill,
  Advised,
  Caution,
  Explained,
  Figure,
  Finding,
  Job,
  NewGate,
  Plan,
  PlannedRun,
  Problem,
  RuleLevel,
  TableRequest,
  Told,
} from '../gen/api'
import { api, Gone, Refused } from './api'
import { Drawings } from './drawings.svelte'
import * as msg from '../gen/messages'

/** A run with what is said of it. */
export type WholeRun = PlannedRun & { reminders: Caution[]; levels: RuleLevel[]; addGate: NewGate[] }

/** A plan with what is said beside its figures. */
export type Whole = Omit<Plan, 'runs' | 'cautions' | 'levels'> & {
  runs: WholeRun[]
  cautions: Caution[]
  levels: RuleLevel
}

/** How long a hand rests before what takes longer is asked for. */
const REST = 120
/** How often figures change under the eye while a hand drags. */
const READ = 90
/** How often ways out are shown while more of them are still on their way. */
const SHOWN = 200

/** Puts what is told into the places of the plan that it is said of. */
export function worded(plan: Plan, told: Told): Whole {
  const runs = plan.runs.map((run): WholeRun => {
    const t = told.runs.find((r) => r.run === run.id)
    const before = said.get(run)
    if (before?.told === told) return before.whole // neither changed: nothing that shows it has to look again
    const whole = wordedRun(run, t, told)
    said.set(run, { told, whole })
    return whole
  })
  return { ...plan, runs, cautions: told.cautions, levels: told.levels }
}

const said = new WeakMap<PlannedRun, { told: Told; whole: WholeRun }>()

function wordedRun(run: PlannedRun, t: Told['runs'][number] | undefined, told: Told): WholeRun {
  return {
    ...run,
    reminders: t?.reminders ?? [],
    levels: t?.levels ?? [told.levels],
    addGate: t?.addGate ?? [],
    cards: run.cards.map((card, i) => ({ ...card, steps: t?.cards[i] ?? [] })),
    gates: run.gates.map((gate, i) => {
      const hung = t?.gates[i]
      return {
        ...gate,
        checks: hung?.checks ?? [],
        steps: hung?.steps ?? [],
        after: hung?.after ?? [],
        order: hung?.order ?? [],
        leaves: gate.leaves.map((leaf, k) => ({
          ...leaf,
          brace: leaf.brace && { ...leaf.brace, says: hung?.braces[k]?.says },
          adjust: leaf.adjust && { ...leaf.adjust, says: hung?.adjust[k]?.says },
        })),
      }
    }),
    topLine: run.topLine && { ...run.topLine, steps: t?.tops ?? [] },
  }
}

/** Puts a time into the browser's own timeline, for who observes it. */
function timed(what: string, start: number) {
  performance.measure(what, { start })
  performance.clearMeasures(what)
}

/** What a planner plans, and whom it tells. */
export interface Planned {
  /** The document as it stands. */
  doc(): Job
  /** No hand drags or types: what takes longer may begin at once. */
  resting(): boolean
  planned(): void
  refused(problem: Problem): void
}

export class Planner {
  private figures = $state.raw<Plan>()!
  private told = $state.raw<Told>()!
  private advice = $state.raw<Record<string, Advised>>({})
  /** What the job takes, item by item: of the figures that were drawn last when nothing moved. */
  bill = $state.raw<Bill>({ items: [], runs: [] })

  /** No newer figures are on their way than those that are drawn. */
  caughtUp = $state(true)
  /** The server did not answer for the newest plan: the drawing shows an older one. */
  behind = $state(false)
  /** What is told is of the figures that are drawn, and they of the job as it stands. */
  worded = $state(false)
  /** What is told and advised is of the figures that are drawn. */
  settled = $state(false)

  /** The plan as it stands. */
  readonly plan: Whole = $derived.by(() => worded(this.figures, this.told))

  /** Its findings with their ways out, as far as they are worked out. */
  readonly findings: Finding[] = $derived.by(() => {
    const more = Object.values(this.advice).flatMap((a) => (a.more ? [a.more] : []))
    return [...this.figures.findings.map((f) => ({ ...f, remedies: this.advice[f.id!]?.remedies })), ...more]
  })

  /** The drawings that are open. */
  readonly drawings = new Drawings(() => this.of)

  constructor(private readonly job: Planned) {}

  private of: Job | undefined
  private resting: ReturnType<typeof setTimeout> | undefined
  private asking = new AbortController()

  /** Plans a document for the first time, with all that is said of it. */
  async open(doc: Job) {
    const [{ plan: figures }, told, bill] = await Promise.all([
      api.plan(doc, []),
      api.tell(doc),
      api.bill(doc),
    ])
    this.told = told
    this.bill = bill
    this.figures = figures
    this.of = doc
    this.rest(0)
  }

  /** Settles when the plan is of the document as it stands. */
  planned: Promise<void> = Promise.resolve()
  private planning = false
  /** When the figures of the benches were last those that are drawn. */
  private read = 0
  private again = false

  /** Plans the document as it stands: one at a time, the latest wins. */
  replan(): Promise<void> {
    if (this.planning) this.again = true
    else this.planned = this.planNow()
    return this.planned
  }

  private async planNow() {
    this.planning = true
    this.caughtUp = false
    this.hush()
    try {
      do {
        this.again = false
        const doc = this.job.doc()
        try {
          const asked = performance.now()
          const wanted = this.drawings.wanted()
          const { plan, drawings } = await api.plan(doc, wanted.views)
          timed('plan', asked)
          requestAnimationFrame(() => setTimeout(() => timed(msg.planner_plan_drawn, asked)))
          this.of = doc
          this.drawings.show(doc, wanted, drawings)
          this.behind = false
          // While a hand moves on, the drawing follows it; the benches now and then.
          if (this.again && asked - this.read < READ) continue
          this.read = asked
          this.figures = plan
          this.job.planned()
        } catch (e) {
          this.behind = e instanceof Gone
          if (e instanceof Refused) this.job.refused(e.problem)
          else if (!(e instanceof Gone)) throw e
        }
      } while (this.again)
    } finally {
      this.planning = false
      this.caughtUp = true
      this.rest(this.job.resting() ? 0 : REST)
    }
  }

  /** What takes longer than a frame waits no more: the job has moved on. */
  private hush() {
    clearTimeout(this.resting)
    this.asking.abort()
    this.worded = this.settled = false
  }

  /** Asks for the rest, once nothing newer has come for a while. */
  private rest(after: number) {
    clearTimeout(this.resting)
    this.resting = setTimeout(() => void this.settle(), after)
  }

  private async settle() {
    this.asking.abort()
    const asking = (this.asking = new AbortController())
    const doc = this.of!
    try {
      const [told, bill] = await Promise.all([api.tell(doc, asking.signal), api.bill(doc, asking.signal)])
      this.told = told
      this.bill = bill
      this.worded = true
      const advice: Record<string, Advised> = {}
      let shown = performance.now()
      await api.advise({ doc }, asking.signal, (one) => {
        advice[one.id] = one
        if (performance.now() - shown > SHOWN) {
          shown = performance.now()
          this.advice = { ...advice }
        }
      })
      if (asking.signal.aborted) return
      this.advice = advice
      this.settled = true
    } catch (e) {
      if (asking.signal.aborted) return
      // The figures stand; the rest is asked for again with the next ones.
      console.warn(e)
    }
  }

  /** Rows of a table of a run, of the plan that is drawn. */
  table(asked: Omit<TableRequest, 'doc'>, signal: AbortSignal) {
    return api.table({ doc: this.of!, ...asked }, signal)
  }

  explain(figure: Figure, signal: AbortSignal): Promise<Explained> {
    return api.explain({ doc: this.of!, figure }, signal)
  }

  close() {
    this.hush()
  }
}
