// The document of an open job as it stands in this window, and the saving of
// it. Edits show at once; saves go one after another, each on top of the
// revision that the window knows; what other windows save is taken up.
import type { Catalogue, Clash, Edit, FieldError, Job, JobState, Mend, Op, Problem } from '../gen/api'
import { api, Gone, Refused, type Base } from './api'
import { at, change, isList, names, read, type Change } from './doc'
import { Later } from './later'
import { Live } from './live'
import { Slot, editsOf, kept, type Pending } from './slot'
import { wrongSays } from './wrong'
import * as msg from '../gen/messages'

export type Saving = 'looking' | 'saved' | 'saving' | 'gone' | 'conflict' | 'invalid'

/** What the document is planned by. */
export interface Follower {
  /** Plans the document as it stands; settles when its plan is there. */
  replan(): Promise<void>
  /** Settles when no plan is on its way. */
  readonly planned: Promise<void>
  /** The plan that is shown is older than the document, since nobody answered. */
  readonly behind: boolean
}

const fieldNames: Record<string, string> = {
  at: msg.document_the_place,
  length: msg.document_the_length,
  opening: msg.document_the_inside_measure,
  leaf: msg.common_the_leaf,
  clear: msg.document_the_clear_way,
  gap: msg.document_the_gap_under_the_leaf,
  height: msg.document_the_height,
  gapMost: msg.document_the_most_gap,
  gapLeast: msg.document_the_least_gap,
  most: msg.document_the_most_spacing,
  piece: msg.document_the_piece_that_sets_the,
  least: msg.document_the_least_bay,
  wall: msg.document_the_wall_of_the_post,
  width: msg.document_the_width,
  diagonal: msg.document_the_diagonal,
  angle: msg.document_the_angle,
  off: msg.document_the_offset,
  drop: msg.document_the_drop,
  every: msg.document_the_distance_between_readings,
}

const RETRY = 2000
/** How often a window that is looked at asks whether another one saved, should it not be told. */
const LOOK = 60_000
/** How often a change that the server works out is asked for again because the job changed meanwhile. */
const REMADE = 6
/** Twentieths of a second that undo waits for a save. */
const PATIENCE = 60

/**
 * A document with the names that its posts were given when it was saved, on
 * the runs that it still has as they were sent.
 */
function namesOf(saved: Job, sent: Job, now: Job): Job {
  const runs = (doc: Job) =>
    doc.lines.flatMap((l) => l.runs.map((r) => ({ path: at('/lines', l.id, 'runs', r.id), r })))
  const was = new Map(runs(sent).map(({ path, r }) => [path, JSON.stringify(r.laid)]))
  const here = new Map(runs(now).map(({ path, r }) => [path, JSON.stringify(r.laid)]))
  const fresh = runs(saved).filter(
    ({ path, r }) =>
      was.get(path) === here.get(path) && here.has(path) && JSON.stringify(r.laid) !== here.get(path),
  )
  return change(
    now,
    fresh.flatMap(({ path, r }) => [
      { path: path + '/laid', value: r.laid ?? null },
      { path: path + '/named', value: r.named ?? null },
    ]),
  )
}

/** What is known of a revision beside its document. */
type Known = Pick<JobState, 'revision' | 'generation' | 'canUndo' | 'canRedo' | 'unknown' | 'left'>

/** How many edits are sent by themselves; of more, the whole document is. */
const EDITS = 1000

export class DocumentStore {
  doc = $state.raw<Job>()!
  saving = $state<Saving>('saved')
  errors = $state.raw<FieldError[]>([])
  revision = $state(0)
  /** Of the database that the revision is of: another one after each restore of a backup. */
  private generation = ''
  canUndo = $state(false)
  canRedo = $state(false)
  unknown = $state.raw<string[]>([])
  /** What a document of an older version said that this one cannot. */
  left = $state.raw<string[]>([])
  theirs = $state.raw<JobState | null>(null)
  /** Fields that this window and another one changed to different values. */
  clashes = $state.raw<Clash[]>([])
  /** Ways out of what was refused, beside typing something else. */
  ways = $state.raw<Mend[]>([])
  notice = $state('')
  /** What the server says is the matter, while it cannot save. */
  trouble = $state('')

  private queue: Pending | null = null
  private busy = false
  private retry: ReturnType<typeof setTimeout> | undefined
  private closed = false
  /** Half an entry is shown: what is wrong with it is no complaint yet. */
  quiet = false

  constructor(
    readonly id: string,
    readonly catalogue: Catalogue,
    private readonly follower: Follower,
    state: JobState,
  ) {
    this.take(state)
    this.watch()
  }

  close() {
    this.closed = true
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
      if (quiet() && !this.shows(head)) {
        const state = await api.get(this.id)
        if (quiet() && !this.shows(state) && !this.previewing) {
          this.take(state)
          this.notice = msg.document_another_window_saved({ what: state.what })
          await this.replan()
        }
      }
      if (this.saving === 'looking') this.saving = 'saved'
    } catch (e) {
      if (this.saving === 'looking') this.saving = 'saved'
      this.failed(e)
    }
  }

  /** Whether a revision is the one that is shown. */
  private shows = (r: { revision: number; generation: string }) =>
    r.revision === this.revision && r.generation === this.generation

  /** The value at a path, or the usual one where the document leaves it out. */
  value<T>(path: string): T | undefined {
    return this.own<T>(path) ?? this.usual<T>(path)
  }

  /** What the document itself says at a path. */
  own<T>(path: string): T | undefined {
    return (read(this.doc, path) ?? undefined) as T | undefined
  }

  /** The usual value at a path: what the rules take where the document leaves it out. */
  usual<T>(path: string): T | undefined {
    const inRun = /^\/lines\/[^/]+\/runs\/[^/]+(\/.*)$/.exec(path)
    const inGate = /^\/lines\/[^/]+\/runs\/[^/]+\/gates\/[^/]+(\/.*)$/.exec(path)
    const inBook = /^\/lines\/[^/]+\/books\/[^/]+(\/.*)$/.exec(path)
    const system = this.doc.units.system
    const { gates, runs, book, site } = this.catalogue
    const usual = inGate
      ? read(gates[system], inGate[1]!)
      : inRun
        ? read(runs[system], inRun[1]!)
        : inBook
          ? read(book, inBook[1]!)
          : path.startsWith('/site/')
            ? read(site, path.slice('/site'.length))
            : undefined
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
    const all = names(path)
    const name = all.findLast((part, i) => part && !isList(all[i - 1] ?? '')) ?? path
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

  /** The same for a document that was made elsewhere of the one before the drag. */
  show(doc: Job) {
    this.quiet = true
    this.previewing = true
    this.doc = doc
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
    await this.follower.planned
    return this.reshape(op())
  }

  /** Saves a document that the server made of this one; returns what stood in the way. */
  takeMade(made: () => Promise<{ doc: Job; what: string }>): Promise<string | null> {
    // One after another, each of the document that the one before it made.
    const taken = this.shaping.then(() => this.makeNow(made))
    this.shaping = taken.then(() => this.follower.planned)
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
      return msg.document_the_job_kept_changing_meanwhile
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
    this.from = { revision: theirs.revision, generation: theirs.generation, doc: theirs.doc, exact: true }
    this.doc = doc
    void this.replan()
    this.enqueue(msg.document_chosen_between_two_windows_changes)
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
      doc: { ...this.doc, name: msg.document_a_copy({ name: this.doc.name }).slice(0, 120) },
      what: msg.document_copy_of_what_another_window,
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
    this.from = { revision: state.revision, generation: state.generation, doc: state.doc, exact: true }
    this.known(state)
    this.previewing = false
    this.saving = 'saved'
    this.errors = []
    this.ways = []
  }

  private known(state: Known) {
    this.revision = state.revision
    this.generation = state.generation
    this.canUndo = state.canUndo
    this.canRedo = state.canRedo
    this.unknown = state.unknown
    this.left = state.left ?? []
  }

  private moving = Promise.resolve()
  /** Moves come one after another, each from where the one before it led. */
  private move(to: (from: Base) => Promise<JobState>): Promise<void> {
    Later.flush()
    return (this.moving = this.moving.then(() => this.shaping).then(() => this.moveNow(to)))
  }
  private async moveNow(to: (from: Base) => Promise<JobState>) {
    // What is being saved is saved first; without a server nothing can be undone.
    for (let k = 0; k < PATIENCE && (this.busy || this.queue) && this.saving !== 'gone'; k++)
      await new Promise((then) => setTimeout(then, 50))
    if (this.busy || this.queue) return
    try {
      this.take(await to({ base: this.revision, generation: this.generation }))
      await this.replan()
    } catch (e) {
      this.failed(e)
    }
  }

  private replan(): Promise<void> {
    return this.follower.replan()
  }

  private readonly slot = new Slot(() => this.id)
  /** What the document here was made of: a revision, or what was last sent. */
  private from = { revision: 0, generation: '', doc: undefined as Job | undefined, exact: false }
  previewing = false
  private merged: Job | null = null

  private enqueue(what: string) {
    this.previewing = false
    this.queueUp({
      base: this.from.revision,
      generation: this.from.generation,
      from: this.from.doc,
      exact: this.from.exact,
      doc: this.doc,
      what,
    })
  }

  private queueUp(p: Pending) {
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
  async pickUp() {
    const p = await kept(this.id)
    if (!p) return
    this.notice = msg.document_a_change_that_was_not
    if (!p.edits) {
      this.doc = p.doc
      this.from = { revision: p.base, generation: p.generation ?? '', doc: p.from, exact: false }
      this.enqueue(p.what)
    } else this.pickUpEdits(p.base, p.generation ?? '', p.edits, p.what)
    void this.replan()
  }

  /** Takes up edits of this revision, or of one before it, which the server then lays over what came since. */
  private pickUpEdits(base: number, generation: string, edits: Change[], what: string) {
    this.doc = change(this.doc, edits)
    // Of another database nothing is known but this one's: they are laid over what stands there now.
    const elsewhere = !!generation && generation !== this.from.generation
    if (base === this.from.revision || elsewhere) this.enqueue(what)
    else this.queueUp({ base, generation, from: undefined, exact: true, doc: this.doc, what, edits })
  }

  /** Saves a change: its edits, or the whole document where they do not say all. */
  private async send(p: Pending): Promise<{ known: Known; doc: Job; merged: JobState | null }> {
    const edits = editsOf(p)
    if (edits && (p.edits || edits.length <= EDITS)) {
      try {
        const { base, generation, what } = p
        const saved = await api.edit(this.id, { base, generation, edits: edits as Edit[], what })
        const doc = saved.made.length ? change(p.doc, saved.made) : p.doc
        return { known: { ...saved, left: this.left }, doc, merged: saved.state ?? null }
      } catch (e) {
        // The revision that they were made to is not there any more, or is of another database: what it was
        // is known here, and is laid with the change over what stands there now.
        const elsewhere = e instanceof Refused && e.problem.current && !e.problem.clashes
        if (!elsewhere || !p.from) throw e
      }
    }
    const { base, generation, from, doc, what } = p
    const state = await api.save(this.id, { base, generation, from, doc, what })
    return { known: state, doc: state.doc, merged: state.merged ? state : null }
  }

  private async flush() {
    if (this.busy || !this.queue || this.closed) return
    this.busy = true
    clearTimeout(this.retry)
    this.saving = 'saving'
    const p = this.queue
    try {
      const { known, doc, merged } = await this.send(p)
      this.known(known)
      if (this.follower.behind) void this.replan()
      if (!merged) this.doc = namesOf(doc, p.doc, this.doc)
      const from = {
        revision: known.revision,
        generation: known.generation,
        doc: merged ? p.doc : doc,
        exact: !merged,
      }
      if (this.queue === p) {
        this.drop()
        if (merged && !this.previewing) {
          this.take(merged)
          this.notice = msg.document_another_window_saved_too_its
          void this.replan()
        } else this.from = from
        this.saving = 'saved'
      } else {
        // What waits was made of what was just sent.
        const waits = namesOf(doc, p.doc, this.queue.doc)
        this.queue = {
          base: from.revision,
          generation: from.generation,
          from: from.doc,
          exact: from.exact,
          doc: waits,
          what: this.queue.what,
        }
        this.slot.keep(this.queue)
        this.from = from
      }
    } catch (e) {
      const refused = e instanceof Refused ? e.problem : undefined
      const gone = p.edits && refused && !refused.clashes?.length && !refused.fields?.length
      if (gone)
        this.enqueue(p.what) // the revision that they were made to is not kept any more
      else this.failed(e, p)
    } finally {
      this.busy = false
    }
    if (this.queue && this.queue !== p && !this.theirs) void this.flush()
  }

  /** Keeps what was wrong with the document, with the ways out. */
  refused(problem: Problem) {
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

  /** Nothing is wrong with the document any more. */
  accepted() {
    this.errors = []
    this.ways = []
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
