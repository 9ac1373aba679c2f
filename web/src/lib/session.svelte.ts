// One open job: its document and the saving of it, its plan, what is worked on,
// and where in the work somebody is.
import { nameChoices } from './names'
import type { Bill, Figure, Finding, Job, JobState, Op, TableRequest } from '../gen/api'
import { api, Refused } from './api'
import { DocumentStore } from './document.svelte'
import type { Change } from './doc'
import type { Spot } from './address'
import { Navigation } from './navigation.svelte'
import { Planner, type Whole, type WholeRun } from './planner.svelte'
import { Selection } from './selection.svelte'
import * as msg from '../gen/messages'

/** A job whose document cannot be planned: it opens to be read only. */
export class Unplannable extends Error {
  constructor(readonly job: JobState) {
    super(job.problem)
  }
}

export class Session {
  readonly planner: Planner
  readonly store: DocumentStore
  readonly selection: Selection
  readonly nav = new Navigation()

  private constructor(
    state: JobState,
    readonly catalogue: Awaited<ReturnType<typeof api.catalogue>>,
  ) {
    this.planner = new Planner({
      doc: () => this.store.doc,
      resting: () => !this.store.previewing,
      planned: () => {
        this.store.accepted()
        this.selection.keep()
      },
      refused: (problem) => {
        if (!this.store.quiet) this.store.refused(problem)
      },
    })
    this.store = new DocumentStore(state.id, catalogue, this.planner, state)
    this.selection = new Selection(this.planner)
  }

  static async open(id: string): Promise<Session> {
    const [state, catalogue] = await Promise.all([api.get(id), api.catalogue()])
    if (state.problem) throw new Unplannable(state)
    nameChoices(catalogue)
    const s = new Session(state, catalogue)
    await s.planner.open(state.doc).catch((e) => {
      s.close()
      if (e instanceof Refused)
        throw new Error(msg.session_this_job_cannot_be_read({ detail: e.problem.detail }))
      throw e
    })
    s.runID = s.plan.runs[0]!.id
    await s.store.pickUp()
    return s
  }

  close() {
    this.store.close()
    this.planner.close()
  }

  get id() {
    return this.store.id
  }
  get doc(): Job {
    return this.store.doc
  }
  get plan(): Whole {
    return this.planner.plan
  }
  get units() {
    return this.plan.units
  }

  /** What is to be said of the plan, with the ways out as far as they are worked out. */
  get findings(): Finding[] {
    return this.planner.findings
  }
  /** Ways out are of the plan that is drawn. */
  get bill(): Bill {
    return this.planner.bill
  }
  get advised(): boolean {
    return this.planner.settled
  }
  /** What is offered beside the figures is of the job as it stands: only then is it taken. */
  get worded(): boolean {
    return this.planner.worded
  }
  get caughtUp(): boolean {
    return this.planner.caughtUp
  }
  get behind(): boolean {
    return this.planner.behind
  }
  /** Why a figure is what it is. */
  explain(figure: Figure, signal: AbortSignal) {
    return this.planner.explain(figure, signal)
  }
  /** Rows of a table of the run that is worked on. */
  table(asked: Omit<TableRequest, 'doc' | 'run'>, signal: AbortSignal) {
    return this.planner.table({ ...asked, run: this.run.id }, signal)
  }

  /** The drawings that are open. */
  get drawings() {
    return this.planner.drawings
  }

  // What is worked on.
  get run(): WholeRun {
    return this.selection.run
  }
  get runIndex() {
    return this.selection.runIndex
  }
  get line() {
    return this.selection.line
  }
  get lineIndex() {
    return this.selection.lineIndex
  }
  get lineRuns() {
    return this.selection.lineRuns
  }
  get strip() {
    return this.selection.strip
  }
  get drawn() {
    return this.selection.drawn
  }
  get drawnPost() {
    return this.selection.drawnPost
  }
  get gate() {
    return this.selection.gate
  }
  get post() {
    return this.selection.post
  }
  set post(i: number) {
    this.selection.post = i
  }
  get runID() {
    return this.selection.runID
  }
  set runID(id: string) {
    this.selection.runID = id
  }
  get gateID() {
    return this.selection.gateID
  }
  set gateID(id: string) {
    this.selection.gateID = id
  }
  get followed() {
    return this.selection.followed
  }
  set followed(id: string) {
    this.selection.followed = id
  }
  get unrolled() {
    return this.selection.unrolled
  }
  set unrolled(on: boolean) {
    this.selection.unrolled = on
  }
  pickDrawn(index: number) {
    this.selection.pickDrawn(index)
  }
  pickRun(id: string) {
    this.selection.pickRun(id)
  }

  /** Path of a field of the run. */
  at(field: string): string {
    return this.run.path + field
  }
  /** Path of a field of the line. */
  lineAt(field: string): string {
    return this.line.path + field
  }

  // The document.
  /** What is usual at a path, where the document leaves it out. */
  usual<T>(path: string): T | undefined {
    return this.store.usual<T>(path)
  }
  /** What the document itself says at a path. */
  own<T>(path: string): T | undefined {
    return this.store.own<T>(path)
  }
  /** What is chosen at a path, or the usual choice. */
  choice(path: string): string {
    return this.store.value<string>(path) ?? ''
  }
  value<T>(path: string): T | undefined {
    return this.store.value<T>(path)
  }
  errorAt(path: string) {
    return this.store.errorAt(path)
  }
  wrongAt(path: string) {
    return this.store.wrongAt(path)
  }
  fieldName(path: string) {
    return this.store.fieldName(path)
  }
  preview(changes: Change[], quietly = false) {
    this.store.preview(changes, quietly)
  }
  commit(changes: Change[], what: string) {
    this.store.commit(changes, what)
  }
  commitDoc(doc: Job, what: string) {
    this.store.commitDoc(doc, what)
  }
  reshape(op: Op) {
    return this.store.reshape(op)
  }
  reshapeFrom(op: () => Op) {
    return this.store.reshapeFrom(op)
  }
  takeMade(made: () => Promise<{ doc: Job; what: string }>) {
    return this.store.takeMade(made)
  }

  /** Corrects a run's length: what stands at its far end moves with it. */
  async correctLength(mm: number): Promise<string | null> {
    return this.reshape({
      do: 'correct length',
      line: this.line.id,
      run: this.run.id,
      at: mm,
    })
  }

  /** Where one is. */
  get spot(): Spot {
    return {
      run: this.run.id,
      stage: this.nav.stage,
      part: this.nav.stage === 'string' ? undefined : this.nav.parts[this.nav.stage],
      post: this.post ? this.run.posts[this.post]?.id : undefined,
      gate: this.nav.stage === 'gates' ? this.gate?.id : undefined,
    }
  }

  /** Goes to where an address leads; what is not there any more is left out. */
  goTo(spot: Spot) {
    if (spot.run && this.plan.runs.some((r) => r.id === spot.run)) this.pickRun(spot.run)
    this.nav.take(spot)
    const post = this.run.posts.findIndex((p) => p.id === spot.post || p.label === spot.post)
    this.post = Math.max(0, post)
    if (spot.gate) this.gateID = spot.gate
  }
}
