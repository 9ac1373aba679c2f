// Where a hand holds something: it is drawn there at once, and where the plan
// has it once the hand has let go and the plan has come.

/** How long after letting go the plan has come, milliseconds. */
const COME = 500

export class Held {
  private value = $state<number | null>(null)
  private going: ReturnType<typeof setTimeout> | undefined

  /** Where it is, given where the plan has it. */
  at(planned: number): number {
    return this.value ?? planned
  }
  put(value: number) {
    clearTimeout(this.going)
    this.value = value
  }
  letGo() {
    clearTimeout(this.going)
    this.going = setTimeout(() => (this.value = null), COME)
  }
}
