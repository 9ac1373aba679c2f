// What stands above ground on the run that is worked on, asked again when the
// job changes: the newest answer wins, and the last one stays until it is there.
import { untrack } from 'svelte'
import type { Built } from '../gen/api'
import { api } from './api'
import type { Session } from './session.svelte'

const PAUSE = 120

export class BuiltRun {
  built = $state.raw<Built | undefined>()
  refused = $state('')

  /** Asks while the component that makes it is shown; alone: cut lists of the run by itself. */
  constructor(session: Session, alone: () => boolean = () => true) {
    $effect(() => {
      const [doc, run, only] = [session.doc, session.run.id, alone()]
      const stop = new AbortController()
      const first = untrack(() => this.built?.run !== run)
      const timer = setTimeout(
        async () => {
          try {
            const built = await api.build({ doc, run, alone: only }, stop.signal)
            if (!stop.signal.aborted) {
              this.built = built
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
