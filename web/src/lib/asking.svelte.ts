// The one figure whose reasons are open, and where it stands.
import { getContext, setContext } from 'svelte'

export class Asking {
  open = $state(false)
  why = $state(0)
  of = $state('')
  anchor = $state.raw<HTMLElement | null>(null)

  ask(why: number, of: string, anchor: HTMLElement) {
    this.why = why
    this.of = of
    this.anchor = anchor
    this.open = true
  }
}

const KEY = Symbol('asking')
export const provideAsking = () => setContext(KEY, new Asking())
export const useAsking = () => getContext<Asking>(KEY)
