// The one figure whose reasons are open, and where it stands.
import { getContext, setContext } from 'svelte'
import type { Figure } from '../gen/api'

export class Asking {
  open = $state(false)
  /** Somebody has asked since the page was opened. */
  asked = $state(false)
  /** The figure; without a run it is of the run that is worked on. */
  why = $state.raw<Figure>({ of: 'totals' })
  of = $state('')
  anchor = $state.raw<HTMLElement | null>(null)

  ask(why: Figure, of: string, anchor: HTMLElement) {
    this.why = why
    this.of = of
    this.anchor = anchor
    this.open = this.asked = true
  }
}

const KEY = Symbol('asking')
export const provideAsking = () => setContext(KEY, new Asking())
export const useAsking = () => getContext<Asking>(KEY)
