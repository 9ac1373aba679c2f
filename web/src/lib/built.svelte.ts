// What stands above ground on the run that is worked on.
import type { Built } from '../gen/api'
import { Answer } from './answer.svelte'
import { api } from './api'
import type { Session } from './session.svelte'

export class BuiltRun {
  #answer: Answer<Built>

  /** Alone: cut lists of the run by itself. */
  constructor(session: Session, alone: () => boolean = () => true) {
    this.#answer = new Answer(
      session,
      () => `${session.run.id} ${alone()}`,
      (doc, signal) => api.build({ doc, run: session.run.id, alone: alone() }, signal),
    )
  }

  get built() {
    return this.#answer.value
  }

  get refused() {
    return this.#answer.refused
  }
}
