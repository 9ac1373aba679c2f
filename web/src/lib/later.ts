// What a nudge by keys settles a moment later, so that keys in quick
// succession are one revision. Only one waits at a time: another change, or
// undo, settles it first, so that it cannot come after and take that back.
const PAUSE = 500

export class Later {
  private static current: Later | null = null
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly settle: () => void) {}

  /** Settles whatever waits. */
  static flush() {
    Later.current?.now()
  }

  get waiting() {
    return this.timer !== undefined
  }

  wait() {
    if (Later.current !== this) Later.flush()
    Later.current = this
    clearTimeout(this.timer)
    this.timer = setTimeout(() => this.now(), PAUSE)
  }

  forget() {
    clearTimeout(this.timer)
    this.timer = undefined
    if (Later.current === this) Later.current = null
  }

  private now() {
    this.forget()
    this.settle()
  }
}
