// The core of this window: until it is there, and where it cannot run, the
// server answers the same calls.
import type { Drawing, Job, Plan, Problem, Replanned, View } from '../gen/api'
import type { Answer, Ask } from '../core/messages'

/** Whoever waits for a call. */
interface Waiting {
  answer(bytes: Uint8Array): void
  done(problem: Problem | undefined): void
}

const text = new TextDecoder()

export class Core {
  private worker: Worker | undefined
  /** The core answers here. */
  ready = false
  private last = 0
  private readonly waiting = new Map<number, Waiting>()

  constructor() {
    this.worker = new Worker(new URL('../core/worker.ts', import.meta.url), { type: 'module' })
    this.worker.onmessage = ({ data }: MessageEvent<Answer>) => this.heard(data)
    this.worker.onerror = () => this.lost()
  }

  private heard(a: Answer) {
    if ('ready' in a) {
      this.ready = true
      document.documentElement.dataset['core'] = 'ready'
    } else if ('failed' in a) this.lost()
    else if ('answer' in a) this.waiting.get(a.id)?.answer(a.answer)
    else {
      const w = this.waiting.get(a.id)
      this.waiting.delete(a.id)
      w?.done(a.problem === undefined ? undefined : (JSON.parse(a.problem) as Problem))
    }
  }

  /** The core cannot run here: whoever waits asks the server. */
  private lost() {
    this.ready = false
    this.worker?.terminate()
    this.worker = undefined
    document.documentElement.dataset['core'] = 'lost'
    for (const w of this.waiting.values()) w.done({ status: 500, title: '', detail: '' })
    this.waiting.clear()
    this.had = undefined
  }

  private post(ask: Ask) {
    this.worker!.postMessage(ask)
  }

  /** Asks the core, which sends each of its answers. Nothing where it could not: then the server can. */
  ask(
    call: string,
    request: unknown,
    signal: AbortSignal | undefined,
    each: (answer: unknown) => void,
  ): Promise<Problem | undefined> {
    return new Promise((resolve, reject) => {
      const id = ++this.last
      const drop = () => {
        this.waiting.delete(id)
        this.post({ drop: id })
        reject(signal!.reason as Error)
      }
      if (signal?.aborted) {
        reject(signal.reason as Error)
        return
      }
      signal?.addEventListener('abort', drop, { once: true })
      this.waiting.set(id, {
        answer: (bytes) => each(JSON.parse(text.decode(bytes))),
        done: (problem) => {
          signal?.removeEventListener('abort', drop)
          resolve(problem)
        },
      })
      this.post({ id, call, request: JSON.stringify(request) })
    })
  }

  private had: { number: number; plan: Plan } | undefined

  /** A plan: its runs that did not change are the very ones of the plan before. */
  async plan(
    doc: Job,
    views: View[],
  ): Promise<{ plan?: Plan; drawings?: (Drawing | null)[]; problem?: Problem }> {
    const had = this.had
    let next: Replanned | undefined
    const problem = await this.ask('replan', { doc, after: had?.number ?? 0, views }, undefined, (a) => {
      next = a as Replanned
    })
    if (problem || !next) return { problem }
    const { number, runs, plan, drawings } = next
    const of = (id: string, among: Plan | undefined) => among?.runs.find((r) => r.id === id)
    const whole = { ...plan, runs: runs.map((id) => of(id, plan) ?? of(id, had?.plan)!) }
    this.had = { number, plan: whole }
    return { plan: whole, drawings }
  }
}
