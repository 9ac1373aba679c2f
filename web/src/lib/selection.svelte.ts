// What is worked on: a run, one of its posts, one of its gates; and what of
// the line is drawn.
import type { PlannedLine, PlannedRun } from '../gen/api'
import type { Planner, WholeRun } from './planner.svelte'
import { unroll, type Strip } from './strip'

export class Selection {
  private place = $state(0)
  /** The picked post, by its id, so that it stays when others come or go. */
  private postID = ''
  /** The run that is worked on, by its id, so that it stays when runs move. */
  runID = $state('')
  /** A held post that stays picked, whatever number it gets as the rest re-space. */
  followed = ''
  /** The gate of the run that is worked on, by its name in the document. */
  gateID = $state('')
  /** Draw the whole line, corner after corner, rather than one run. */
  unrolled = $state(false)

  constructor(private readonly planner: Planner) {}

  /** Place of the picked post on its run. */
  get post(): number {
    return this.place
  }
  set post(i: number) {
    this.place = i
    this.postID = this.run?.posts[i]?.id ?? ''
  }

  private get plan() {
    return this.planner.plan
  }

  /** Keeps to what was picked when the plan has changed. */
  keep() {
    const posts = this.run.posts
    const held = this.followed ? posts.findIndex((p) => p.held === this.followed) : -1
    const same = held >= 0 ? held : posts.findIndex((p) => p.id === this.postID)
    this.post = Math.min(same >= 0 ? same : this.place, Math.max(0, posts.length - 1))
  }

  /** Place of the run in the plan's list. */
  readonly runIndex = $derived.by(() =>
    Math.max(
      0,
      this.plan.runs.findIndex((r) => r.id === this.runID),
    ),
  )

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
}
