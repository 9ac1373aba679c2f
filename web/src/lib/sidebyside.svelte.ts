// What the server makes of the run in other ways, side by side: asked again
// when the job changes, the newest answer wins.
import { untrack } from 'svelte'
import type { Edit, Job } from '../gen/api'
import { take } from './answer.svelte'
import type { Session } from './session.svelte'

const PAUSE = 150

export class SideBySide<T extends { edits: Edit[] }> {
  rows = $state.raw<T[]>([])
  waiting = $state(true)
  refused = $state('')
  /** The rows are of the job as it stands: only then is one taken. */
  fresh = $state(false)

  /** Asks while the component that makes it is shown. */
  constructor(
    private readonly session: Session,
    ask: (doc: Job, run: string) => Promise<T[]>,
  ) {
    $effect(() => {
      const [doc, run] = [session.doc, session.run.id]
      if (!session.run.posts.length) {
        this.rows = []
        this.waiting = false
        return
      }
      untrack(() => (this.waiting = true))
      this.fresh = false
      const timer = setTimeout(async () => {
        try {
          const rows = await ask(doc, run)
          if (doc === session.doc && run === session.run.id) {
            this.rows = rows
            this.fresh = true
            this.refused = ''
          }
        } catch (e) {
          this.refused = e instanceof Error ? e.message : String(e)
        }
        this.waiting = false
      }, PAUSE)
      return () => clearTimeout(timer)
    })
  }

  /** Takes a row; one that is tapped while the job is being worked out again, as it comes out then. */
  take(is: (row: T) => boolean, says: string) {
    return take(
      this.session,
      () => this.fresh,
      () => this.rows.find(is),
      says,
    )
  }
}
