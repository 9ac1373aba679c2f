// What the core answers about the job, asked again when the job changes: the newest
// answer wins, and the last one stays until it is there.
import { untrack } from 'svelte'
import type { Edit, Job } from '../gen/api'
import type { Change } from './doc'
import * as msg from '../gen/messages'
import type { Session } from './session.svelte'

const PAUSE = 120
/** How long a tap waits for what is being worked out again, in tenths of a second. */
const PATIENCE = 50

/** Waits until something is of the job as it stands; false where that does not come. */
export async function fresh(is: () => boolean): Promise<boolean> {
  for (let k = 0; !is() && k < PATIENCE; k++) await new Promise((go) => setTimeout(go, 100))
  return is()
}

/**
 * Takes what is offered, as it is of the job as it stands: a tap while that is being worked out again waits
 * for it. What is not offered any more then is said.
 */
export async function take(
  session: Session,
  is: () => boolean,
  offered: () => { edits: Edit[] } | undefined,
  says: string,
  edits: (of: Edit[]) => Change[] = (of) => of,
) {
  const now = (await fresh(is)) ? offered() : undefined
  if (now) session.commit(edits(now.edits), says)
  else session.store.notice = msg.finding_list_no_longer_a_way_out({ says })
}

export class Answer<T> {
  value = $state.raw<T | undefined>()
  refused = $state('')
  /** It is of the job as it stands: only then is a way that it offers taken. */
  fresh = $state(false)
  #key: string | undefined

  /** Asks while the component that makes it is shown. Another key is asked for at once, a changed job after a pause. */
  constructor(session: Session, key: () => string, ask: (doc: Job, signal: AbortSignal) => Promise<T>) {
    $effect(() => {
      const [doc, of] = [session.doc, key()]
      const stop = new AbortController()
      const first = untrack(() => this.#key !== of)
      this.fresh = false
      const timer = setTimeout(
        async () => {
          try {
            const value = await ask(doc, stop.signal)
            if (!stop.signal.aborted) {
              this.value = value
              this.#key = of
              this.fresh = true
              this.refused = ''
            }
          } catch (e) {
            if (!stop.signal.aborted) this.refused = e instanceof Error ? e.message : String(e)
          }
        },
        first ? 0 : PAUSE,
      )
      return () => {
        clearTimeout(timer)
        stop.abort()
      }
    })
  }
}
