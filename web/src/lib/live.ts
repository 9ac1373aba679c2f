// What other windows do, as it happens. A window that nobody looks at does not
// listen: browsers allow few connections to one server. It learns what it
// missed when it is looked at again.
import type { Event } from '../gen/api'

export class Live {
  private source: EventSource | null = null
  private last = ''
  private readonly turn = () => this.look()

  /** Listens to one job, or to all of them. */
  constructor(
    private readonly job: string,
    private readonly heard: (e: Event) => void,
  ) {
    document.addEventListener('visibilitychange', this.turn)
    this.look()
  }

  close() {
    document.removeEventListener('visibilitychange', this.turn)
    this.source?.close()
    this.source = null
  }

  private look() {
    if (document.visibilityState !== 'visible') {
      this.source?.close()
      this.source = null
    } else this.source ??= this.listen()
  }

  private listen(): EventSource {
    const source = new EventSource(`/api/live?${new URLSearchParams({ job: this.job, since: this.last })}`)
    source.onmessage = (m) => {
      this.last = m.lastEventId
      this.heard(JSON.parse(m.data as string) as Event)
    }
    // A refusal ends it for good, where a lost connection is tried again.
    source.onerror = () => {
      if (source.readyState !== EventSource.CLOSED || this.source !== source) return
      this.source = null
      setTimeout(() => this.look(), 5000)
    }
    return source
  }
}
