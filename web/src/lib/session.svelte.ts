// One open job: the document as it stands in this window, its plan, and the
// saving of it. Edits show at once; the plan follows, latest wins; saves go
// one after another, each on top of the revision that the window knows.
import type { Catalogue, FieldError, Job, JobState, Op, Plan, PlannedLine, PlannedRun } from '../gen/api'
import { api, Gone, Refused } from './api'
import { change, read, type Change } from './doc'
import { Later } from './later'
import type { Scope } from './scope'
import type { Stage } from './stages'
import { unroll, type Strip } from './strip'

export type Saving = 'saved' | 'saving' | 'gone' | 'conflict' | 'invalid'

interface Pending {
  base: number
  doc: Job
  what: string
}

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
/** Twentieths of a second that undo waits for a save. */
const PATIENCE = 60

export class Session {
  doc = $state.raw<Job>()!
  plan = $state.raw<Plan>()!
  saving = $state<Saving>('saved')
  errors = $state.raw<FieldError[]>([])
  revision = $state(0)
  canUndo = $state(false)
  canRedo = $state(false)
  unknown = $state.raw<string[]>([])
  theirs = $state.raw<JobState | null>(null)
  notice = $state('')
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
    const s = new Session(id, catalogue)
    s.take(state)
    s.plan = await api.plan(state.doc).catch((e) => {
      if (e instanceof Refused) throw new Error(`This job cannot be read: ${e.problem.detail}`)
      throw e
    })
    s.runID = s.plan.runs[0]!.id
    s.pickUp()
    return s
  }

  close() {
    this.closed = true
    clearTimeout(this.retry)
  }

  /** Place of the run in the plan's list. */
  readonly runIndex = $derived.by(() =>
    Math.max(
      0,
      this.plan.runs.findIndex((r) => r.id === this.runID),
    ),
  )

  get run(): PlannedRun {
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
  get lineRuns(): PlannedRun[] {
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
    this.doc = change(this.doc, changes)
    void this.replan()
  }

  /** Makes a change and saves it as a revision. */
  commit(changes: Change[], what: string) {
    Later.flush()
    this.quiet = false
    this.doc = change(this.doc, changes)
    void this.replan()
    this.enqueue({ base: this.revision, doc: this.doc, what })
  }

  /** Makes a change that the server works out, and saves it as a revision. */
  async reshape(op: Op): Promise<string | null> {
    return this.takeMade(() => api.reshape({ doc: this.doc, op }))
  }

  /** Saves a document that the server made of this one; returns what stood in the way. */
  async takeMade(made: () => Promise<{ doc: Job; what: string }>): Promise<string | null> {
    try {
      const { doc, what } = await made()
      this.commitDoc(doc, what)
      return null
    } catch (e) {
      if (e instanceof Refused) {
        const f = e.problem.fields?.[0]
        return f ? `${this.fieldName(f.field)}: given ${f.given}; allowed is ${f.allowed}.` : e.problem.detail
      }
      return e instanceof Error ? e.message : String(e)
    }
  }

  commitDoc(doc: Job, what: string) {
    Later.flush()
    this.quiet = false
    this.doc = doc
    void this.replan()
    this.enqueue({ base: this.revision, doc, what })
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
  async keepMine() {
    if (!this.theirs) return
    this.revision = this.theirs.revision
    this.theirs = null
    this.enqueue({ base: this.revision, doc: this.doc, what: 'Mine over the other window’s' })
  }

  async takeTheirs() {
    const theirs = this.theirs
    if (!theirs) return
    this.theirs = null
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
    this.known(state)
    this.saving = 'saved'
    this.errors = []
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
    return (this.moving = this.moving.then(() => this.moveNow(to)))
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

  private async replan() {
    if (this.planning) {
      this.planAgain = true
      return
    }
    this.planning = true
    try {
      do {
        this.planAgain = false
        const doc = this.doc
        try {
          const plan = await api.plan(doc)
          if (doc === this.doc || this.planAgain) this.plan = plan
          this.errors = []
          this.behind = false
          const i = this.followed ? this.run.posts.findIndex((p) => p.held === this.followed) : -1
          if (i >= 0) this.post = i
          this.post = Math.min(this.post, Math.max(0, this.run.posts.length - 1))
        } catch (e) {
          this.behind = e instanceof Gone
          if (e instanceof Refused && !this.quiet) this.errors = e.problem.fields ?? []
        }
      } while (this.planAgain)
    } finally {
      this.planning = false
    }
  }

  private get key() {
    return `mallow.unsaved.${this.id}`
  }

  private enqueue(p: Pending) {
    this.queue = p
    localStorage.setItem(this.key, JSON.stringify(p))
    void this.flush()
  }

  private drop() {
    this.queue = null
    clearTimeout(this.retry)
    localStorage.removeItem(this.key)
  }

  /** Takes up a change that this browser kept when Mallow had gone. */
  private pickUp() {
    const kept = localStorage.getItem(this.key)
    if (!kept) return
    try {
      const p = JSON.parse(kept) as Pending
      this.doc = p.doc
      this.revision = p.base
      this.notice = 'A change that was not saved last time has been picked up.'
      void this.replan()
      this.enqueue(p)
    } catch {
      localStorage.removeItem(this.key)
    }
  }

  private async flush() {
    if (this.busy || !this.queue || this.closed) return
    this.busy = true
    clearTimeout(this.retry)
    this.saving = 'saving'
    const p = this.queue
    try {
      const state = await api.save(this.id, { base: this.revision, doc: p.doc, what: p.what })
      this.known(state)
      if (this.behind) void this.replan()
      if (this.queue === p) {
        this.drop()
        this.saving = 'saved'
      }
    } catch (e) {
      this.failed(e, p)
    } finally {
      this.busy = false
    }
    if (this.queue && this.queue !== p && !this.theirs) void this.flush()
  }

  private failed(e: unknown, p?: Pending) {
    if (e instanceof Refused && e.problem.current) {
      this.saving = 'conflict'
      this.theirs = e.problem.current
    } else if (e instanceof Refused) {
      this.saving = p ? 'invalid' : 'saved'
      this.errors = e.problem.fields ?? []
      if (!this.errors.length) this.notice = e.problem.detail
      if (p && this.queue === p) this.drop()
    } else if (e instanceof Gone) {
      this.saving = 'gone'
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
