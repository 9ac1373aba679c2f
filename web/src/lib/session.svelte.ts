// One open job: the document as it stands in this window, its plan, and the
// saving of it. Edits show at once; the plan follows, latest wins; saves go
// one after another, each on top of the revision that the window knows.
import type {
  Catalogue,
  Clash,
  FieldError,
  Job,
  JobState,
  Op,
  Figure,
  Finding,
  PlannedLine,
  PlannedRun,
  Problem,
  Mend,
} from '../gen/api'
import { api, Gone, Refused } from './api'
import { change, read, type Change } from './doc'
import { Live } from './live'
import { Slot, kept, type Pending } from './slot'
import { wrongSays } from './wrong'
import { Later } from './later'
import { Planner, type Whole, type WholeRun } from './planner.svelte'
import type { Scope } from './scope'
import type { Stage } from './stages'
import { unroll, type Strip } from './strip'

export type Saving = 'looking' | 'saved' | 'saving' | 'gone' | 'conflict' | 'invalid'

const fieldNames: Record<string, string> = {
  at: 'The place',
  length: 'The length',
  opening: 'The inside measure',
  leaf: 'The leaf',
  clear: 'The clear way',
  gap: 'The gap under the leaf',
  height: 'The height',
  gapMost: 'The most gap',
  gapLeast: 'The least gap',
  most: 'The most spacing',
  piece: 'The piece that sets the bay',
  least: 'The least bay',
  wall: 'The wall of the post',
  width: 'The width',
  diagonal: 'The diagonal',
  angle: 'The angle',
  off: 'The offset',
  drop: 'The drop',
  every: 'The distance between readings',
}

const RETRY = 2000
/** How often a window that is looked at asks whether another one saved, should it not be told. */
const LOOK = 60_000
/** How often a change that the server works out is asked for again because the job changed meanwhile. */
const REMADE = 6
/** Twentieths of a second that undo waits for a save. */
const PATIENCE = 60

/** A job whose document cannot be planned: it opens to be read only. */
export class Unplannable extends Error {
  constructor(readonly job: JobState) {
    super(job.problem)
  }
}

export class Session {
  doc = $state.raw<Job>()!
  private readonly planner = new Planner()
  saving = $state<Saving>('saved')
  errors = $state.raw<FieldError[]>([])
  revision = $state(0)
  canUndo = $state(false)
  canRedo = $state(false)
  unknown = $state.raw<string[]>([])
  theirs = $state.raw<JobState | null>(null)
  /** Fields that this window and another one changed to different values. */
  clashes = $state.raw<Clash[]>([])
  /** Ways out of what was refused, beside typing something else. */
  ways = $state.raw<Mend[]>([])
  notice = $state('')
  /** What the server says is the matter, while it cannot save. */
  trouble = $state('')
  post = $state(0)
  /** The run that is worked on, by its id, so that it stays when runs move. */
  runID = $state('')
  /** The panel of sheets and files is open. */
  printing = $state(false)
  /** The stage of the work whose bench is open. */
  stage = $state<Stage>('walk')
  /** The part of the Walk bench that is open. */
  walkPart = $state<'line' | 'ground' | 'way' | 'before' | 'files'>('line')
  /** A held post that stays picked, whatever number it gets as the rest re-space. */
  followed = ''
  /** The part of the Space bench that is open. */
  spacePart = $state<'ways' | 'held' | 'layouts' | 'pieces' | 'setout'>('ways')
  /** The part of the Grade bench that is open. */
  gradePart = $state<'look' | 'tops' | 'compare' | 'along' | 'stick' | 'set'>('look')
  /** The gate of the run that is worked on, by its name in the document. */
  gateID = $state('')
  /** The part of the Gates bench that is open. */
  gatePart = $state<'opening' | 'swing' | 'posts' | 'hang' | 'passage'>('opening')
  /** The part of the Dig bench that is open. */
  digPart = $state<'card' | 'rules' | 'site' | 'holes' | 'wind' | 'whatif'>('card')
  /** The part of the Pour bench that is open. */
  pourPart = $state<'fill' | 'rules' | 'holes' | 'totals'>('fill')
  /** Whom the rules that are shown are for. */
  scope = $state<Scope>('run')
  /** Draw the whole line, corner after corner, rather than one run. */
  unrolled = $state(false)

  /** No newer plan is on its way than the one that is drawn. */
  caughtUp = $state(true)
  /** The server did not answer for the newest plan: the drawing shows an older one. */
  behind = $state(false)

  private queue: Pending | null = null
  private busy = false
  private quiet = false
  private planning = false
  private planAgain = false
  private retry: ReturnType<typeof setTimeout> | undefined
  private closed = false

  private constructor(
    readonly id: string,
    readonly catalogue: Catalogue,
  ) {}

  static async open(id: string): Promise<Session> {
    const [state, catalogue] = await Promise.all([api.get(id), api.catalogue()])
    if (state.problem) throw new Unplannable(state)
    const s = new Session(id, catalogue)
    s.take(state)
    s.watch()
    await s.planner.open(state.doc).catch((e) => {
      s.close()
      if (e instanceof Refused) throw new Error(`This job cannot be read: ${e.problem.detail}`)
      throw e
    })
    s.runID = s.plan.runs[0]!.id
    await s.pickUp()
    return s
  }

  close() {
    this.closed = true
    this.planner.close()
    clearTimeout(this.retry)
    clearInterval(this.looking)
    document.removeEventListener('visibilitychange', this.glance)
    window.removeEventListener('focus', this.glance)
    this.live?.close()
  }

  private looking: ReturnType<typeof setInterval> | undefined
  private live: Live | undefined
  private readonly glance = () => void this.lookAgain()

  /** Learns of what other windows save as it happens, and when it is looked at again. */
  private watch() {
    document.addEventListener('visibilitychange', this.glance)
    window.addEventListener('focus', this.glance)
    this.looking = setInterval(this.glance, LOOK)
    this.live = new Live(this.id, (e) => {
      if (e.kind === 'reset' || (e.kind === 'saved' && e.revision !== this.revision)) this.glance()
    })
  }

  /** Takes up a newer revision, unless something of this window's own waits to be saved. */
  private async lookAgain() {
    const quiet = () => !this.closed && !this.busy && !this.queue && !this.theirs && !this.errors.length
    if (document.visibilityState !== 'visible' || !quiet() || this.saving !== 'saved') return
    this.saving = 'looking'
    try {
      const head = await api.head(this.id)
      if (quiet() && head.revision !== this.revision) {
        const state = await api.get(this.id)
        if (quiet() && state.revision !== this.revision && !this.previewing) {
          this.take(state)
          this.notice = `Another window saved: ${state.what}.`
          await this.replan()
        }
      }
      if (this.saving === 'looking') this.saving = 'saved'
    } catch (e) {
      if (this.saving === 'looking') this.saving = 'saved'
      this.failed(e)
    }
  }

  /** Place of the run in the plan's list. */
  readonly runIndex = $derived.by(() =>
    Math.max(
      0,
      this.plan.runs.findIndex((r) => r.id === this.runID),
    ),
  )

  get plan(): Whole {
    return this.planner.plan
  }

  /** What is to be said of the plan, with the ways out as far as they are worked out. */
  get findings(): Finding[] {
    return this.planner.findings
  }

  /** Ways out are of the plan that is drawn. */
  get advised(): boolean {
    return this.planner.settled
  }

  /** Why a figure is what it is. */
  explain(figure: Figure, signal: AbortSignal) {
    return this.planner.explain(figure, signal)
  }

  /** The ways out of a hole that was stopped. */
  waysOut(run: string, post: string, signal: AbortSignal) {
    return this.planner.ways(run, post, signal)
  }

  get run(): WholeRun {
    return this.plan.runs[this.runIndex]!
  }

  /** Place of the line that the run is on. */
  readonly lineIndex = $derived.by(() =>
    Math.max(
      0,
      this.plan.lines.findIndex((l) => this.runIndex >= l.first && this.runIndex < l.first + l.runs),
    ),
  )

  get line(): PlannedLine {
    return this.plan.lines[this.lineIndex]!
  }

  /** Runs of the line, in order. */
  get lineRuns(): WholeRun[] {
    return this.plan.runs.slice(this.line.first, this.line.first + this.line.runs)
  }

  /** The line unrolled corner after corner, or null while one run is drawn. */
  readonly strip: Strip | null = $derived.by(() =>
    this.unrolled && this.lineRuns.some((r) => r.posts.length) ? unroll(this.line, this.lineRuns) : null,
  )

  /** What is drawn from the side: the run, or the whole line as one. */
  readonly drawn: PlannedRun = $derived.by(() => this.strip?.run ?? this.run)

  /** The picked post's place among the drawn posts. */
  readonly drawnPost: number = $derived.by(() => {
    if (!this.strip) return this.post
    const run = this.runIndex - this.line.first
    // A corner post is drawn once, as the last of the run that ends there.
    const shared = this.post === 0 && run > 0
    const at = shared
      ? { run: run - 1, post: this.lineRuns[run - 1]!.posts.length - 1 }
      : { run, post: this.post }
    return Math.max(
      0,
      this.strip.posts.findIndex((p) => p.run === at.run && p.post === at.post),
    )
  })

  /** Picks one of the drawn posts. */
  pickDrawn(index: number) {
    const at = this.strip?.posts[index]
    if (at) {
      this.runID = this.lineRuns[at.run]!.id
      this.post = at.post
    } else this.post = index
  }

  /** Goes to a run. */
  pickRun(id: string) {
    if (id === this.runID) return
    this.runID = id
    this.post = 0
  }

  /** The gate that is worked on; undefined on a run without one. */
  get gate() {
    return this.run.gates.find((g) => g.id === this.gateID) ?? this.run.gates[0]
  }

  get units() {
    return this.plan.units
  }

  /** Path of a field of the run. */
  at(field: string): string {
    return this.run.path + field
  }

  /** Path of a field of the line. */
  lineAt(field: string): string {
    return this.line.path + field
  }

  /** The value at a path, or the usual one where the document leaves it out. */
  value<T>(path: string): T | undefined {
    const own = read(this.doc, path)
    if (own !== undefined && own !== null) return own as T
    const inRun = /^\/lines\/\d+\/runs\/\d+(\/.*)$/.exec(path)
    const inGate = /^\/lines\/\d+\/runs\/\d+\/gates\/\d+(\/.*)$/.exec(path)
    const system = this.doc.units.system
    const usual = inGate
      ? read(this.catalogue.gates[system], inGate[1]!)
      : inRun && read(this.catalogue.runs[system], inRun[1]!)
    return (usual ?? undefined) as T | undefined
  }

  errorAt(path: string): FieldError | undefined {
    return this.errors.find((e) => e.field === path)
  }

  /** What is wrong at a path, in words; nothing where nothing is. */
  wrongAt(path: string): string | undefined {
    const e = this.errorAt(path)
    return e && wrongSays(e)
  }

  /** What a field is called, for a message: the words of its last name. */
  fieldName(path: string): string {
    const name =
      path
        .split('/')
        .filter((part) => !/^\d+$/.test(part))
        .pop() ?? path
    return fieldNames[name] ?? name.replace(/[A-Z]/g, (c) => ' ' + c.toLowerCase())
  }

  /**
   * Shows a change without saving it: a drag under way, or an entry being
   * typed. Half an entry may be out of range, which is nothing to complain of
   * yet: what is typed is previewed quietly.
   */
  preview(changes: Change[], quietly = false) {
    this.quiet = quietly
    this.previewing = true
    this.doc = change(this.doc, changes)
    void this.replan()
  }

  /** Makes a change and saves it as a revision. */
  commit(changes: Change[], what: string) {
    Later.flush()
    this.quiet = false
    this.doc = change(this.doc, changes)
    void this.replan()
    this.enqueue(what)
  }

  /** Corrects a run's length: what stands at its far end moves with it. */
  async correctLength(mm: number): Promise<string | null> {
    return this.reshape({
      do: 'correct length',
      line: this.lineIndex,
      run: this.runIndex - this.line.first,
      at: mm,
    })
  }

  /** Makes a change that the server works out, and saves it as a revision. */
  async reshape(op: Op): Promise<string | null> {
    return this.takeMade(() => api.reshape({ doc: this.doc, op }))
  }

  /**
   * The same for a change that goes from where things now lie: it is worked
   * out once the change before it is in and the plan has caught up, so that
   * quick hands never move a corner from where it no longer is.
   */
  async reshapeFrom(op: () => Op): Promise<string | null> {
    await this.shaping
    await this.planned
    return this.reshape(op())
  }

  /** Saves a document that the server made of this one; returns what stood in the way. */
  takeMade(made: () => Promise<{ doc: Job; what: string }>): Promise<string | null> {
    // One after another, each of the document that the one before it made.
    const taken = this.shaping.then(() => this.makeNow(made))
    this.shaping = taken.then(() => this.planned)
    return taken
  }
  private shaping: Promise<void> = Promise.resolve()

  private async makeNow(made: () => Promise<{ doc: Job; what: string }>): Promise<string | null> {
    try {
      for (let k = 0; k < REMADE; k++) {
        const from = this.doc
        const { doc, what } = await made()
        // What was changed here meanwhile is not overwritten: it is made again of that.
        if (this.doc !== from) continue
        this.commitDoc(doc, what)
        return null
      }
      return 'The job kept changing meanwhile. Try again.'
    } catch (e) {
      if (e instanceof Refused) {
        const f = e.problem.fields?.[0]
        return f ? wrongSays(f, this.fieldName(f.field)) : e.problem.detail
      }
      return e instanceof Error ? e.message : String(e)
    }
  }

  commitDoc(doc: Job, what: string) {
    Later.flush()
    this.quiet = false
    this.doc = doc
    void this.replan()
    this.enqueue(what)
  }

  async undo() {
    await this.move((base) => api.undo(this.id, base))
  }

  async redo() {
    await this.move((base) => api.redo(this.id, base))
  }

  async restore(revision: number) {
    await this.move((base) => api.restore(this.id, base, revision))
  }

  /** The conflict's ways out. */
  async keep(mine: Clash[]) {
    const theirs = this.theirs
    if (!theirs || !this.merged) return
    const doc = change(
      this.merged,
      mine.map((c) => ({ path: c.path, value: c.mine ?? null })),
    )
    this.theirs = null
    this.clashes = []
    this.known(theirs)
    this.from = { revision: theirs.revision, doc: theirs.doc }
    this.doc = doc
    void this.replan()
    this.enqueue('Chosen between two windows’ changes')
  }

  async takeTheirs() {
    const theirs = this.theirs
    if (!theirs) return
    this.theirs = null
    this.clashes = []
    this.drop()
    this.take(theirs)
    await this.replan()
  }

  async keepCopy(): Promise<string> {
    const copy = await api.create({
      doc: { ...this.doc, name: `${this.doc.name} (copy)`.slice(0, 120) },
      what: 'Copy of what another window did not have',
    })
    await this.takeTheirs()
    return copy.id
  }

  /** Goes back to what was last saved, when an entry cannot be used. */
  async revert() {
    this.drop()
    this.take(await api.get(this.id))
    await this.replan()
  }

  private take(state: JobState) {
    this.doc = state.doc
    this.from = { revision: state.revision, doc: state.doc }
    this.known(state)
    this.previewing = false
    this.saving = 'saved'
    this.errors = []
    this.ways = []
  }

  private known(state: JobState) {
    this.revision = state.revision
    this.canUndo = state.canUndo
    this.canRedo = state.canRedo
    this.unknown = state.unknown
  }

  private moving = Promise.resolve()
  /** Moves come one after another, each from where the one before it led. */
  private move(to: (base: number) => Promise<JobState>): Promise<void> {
    Later.flush()
    return (this.moving = this.moving.then(() => this.shaping).then(() => this.moveNow(to)))
  }
  private async moveNow(to: (base: number) => Promise<JobState>) {
    // What is being saved is saved first; without a server nothing can be undone.
    for (let k = 0; k < PATIENCE && (this.busy || this.queue) && this.saving !== 'gone'; k++)
      await new Promise((then) => setTimeout(then, 50))
    if (this.busy || this.queue) return
    try {
      this.take(await to(this.revision))
      await this.replan()
    } catch (e) {
      this.failed(e)
    }
  }

  /** Settles when the plan is of the document as it stands. */
  private planned: Promise<void> = Promise.resolve()

  private replan(): Promise<void> {
    if (this.planning) this.planAgain = true
    else this.planned = this.planNow()
    return this.planned
  }

  private async planNow() {
    this.planning = true
    this.caughtUp = false
    try {
      do {
        this.planAgain = false
        const doc = this.doc
        try {
          await this.planner.take(doc)
          this.errors = []
          this.ways = []
          this.behind = false
          const i = this.followed ? this.run.posts.findIndex((p) => p.held === this.followed) : -1
          if (i >= 0) this.post = i
          this.post = Math.min(this.post, Math.max(0, this.run.posts.length - 1))
        } catch (e) {
          this.behind = e instanceof Gone
          if (e instanceof Refused && !this.quiet) this.refused(e.problem)
        }
      } while (this.planAgain)
    } finally {
      this.planning = false
      this.caughtUp = true
      this.planner.rest(this.previewing ? undefined : 0)
    }
  }

  private readonly slot = new Slot(() => this.id)
  /** What the document here was made of: a revision, or what was last sent. */
  private from = { revision: 0, doc: undefined as Job | undefined }
  private previewing = false
  private merged: Job | null = null

  private enqueue(what: string) {
    this.previewing = false
    const p = { base: this.from.revision, from: this.from.doc, doc: this.doc, what }
    this.queue = p
    this.slot.keep(p)
    void this.flush()
  }

  private drop() {
    this.queue = null
    clearTimeout(this.retry)
    this.slot.clear()
  }

  /** Takes up a change that a window of this browser kept when Mallow had gone. */
  private async pickUp() {
    const p = await kept(this.id)
    if (!p) return
    this.doc = p.doc
    this.from = { revision: p.base, doc: p.from }
    this.notice = 'A change that was not saved last time has been picked up.'
    void this.replan()
    this.enqueue(p.what)
  }

  private async flush() {
    if (this.busy || !this.queue || this.closed) return
    this.busy = true
    clearTimeout(this.retry)
    this.saving = 'saving'
    const p = this.queue
    try {
      const state = await api.save(this.id, { base: p.base, from: p.from, doc: p.doc, what: p.what })
      this.known(state)
      if (this.behind) void this.replan()
      if (this.queue === p) {
        this.drop()
        if (state.merged && !this.previewing) {
          this.take(state)
          this.notice = 'Another window saved too; its changes are in here now.'
          void this.replan()
        } else this.from = { revision: state.revision, doc: state.merged ? p.doc : state.doc }
        this.saving = 'saved'
      } else {
        // What waits was made of what was just sent.
        this.queue = { ...this.queue, base: state.revision, from: p.doc }
        this.slot.keep(this.queue)
        this.from = { revision: state.revision, doc: p.doc }
      }
    } catch (e) {
      this.failed(e, p)
    } finally {
      this.busy = false
    }
    if (this.queue && this.queue !== p && !this.theirs) void this.flush()
  }

  private refused(problem: Problem) {
    this.errors = problem.fields ?? []
    this.ways = problem.ways ?? []
  }

  private failed(e: unknown, p?: Pending) {
    if (e instanceof Refused && e.problem.current) {
      this.saving = 'conflict'
      this.theirs = e.problem.current
      this.clashes = e.problem.clashes ?? []
      this.merged = (e.problem.merged as Job | undefined) ?? null
    } else if (e instanceof Refused) {
      this.saving = p ? 'invalid' : 'saved'
      const ways = this.ways
      this.refused(e.problem)
      if (!this.ways.length) this.ways = ways
      if (!this.errors.length) this.notice = e.problem.detail
      if (p && this.queue === p) this.drop()
    } else if (e instanceof Gone) {
      this.saving = 'gone'
      this.trouble = e.problem ? e.message : ''
      this.retry = setTimeout(() => void this.again(), RETRY)
    } else throw e
  }

  private async again() {
    if (this.queue) return this.flush()
    try {
      this.take(await api.get(this.id))
      await this.replan()
    } catch (e) {
      this.failed(e)
    }
  }
}
