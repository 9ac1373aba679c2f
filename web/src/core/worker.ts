// The core, compiled to WebAssembly, in a worker of its own: it answers the
// same calls as the server, one after another in the order of asking. What is
// not wanted any more when its turn comes is not worked out.
import '../../core/wasm_exec.js'
import url from '../../core/core.wasm?url'
import type { Answer, Ask } from './messages'

interface GoProgram {
  importObject: WebAssembly.Imports
  run(instance: WebAssembly.Instance): Promise<void>
}
declare const Go: new () => GoProgram
type CoreCall = (
  call: string,
  request: Uint8Array,
  send: (answer: Uint8Array<ArrayBuffer>) => void,
) => string | null
const here = globalThis as unknown as {
  mallowCore: CoreCall
  mallowReady: () => void
  postMessage(answer: Answer, transfer?: Transferable[]): void
}

const waiting: Extract<Ask, { call: string }>[] = []
let ready = false
const text = new TextEncoder()

// Between two calls other messages are heard: somebody may have given up.
const turn = new MessageChannel()
turn.port1.onmessage = () => {
  const ask = waiting.shift()
  if (!ask) return
  const problem = here.mallowCore(ask.call, text.encode(ask.request), (answer) =>
    here.postMessage({ id: ask.id, answer }, [answer.buffer]),
  )
  here.postMessage({ id: ask.id, done: true, problem: problem ?? undefined })
  if (waiting.length) turn.port2.postMessage(null)
}

self.onmessage = ({ data }: MessageEvent<Ask>) => {
  if ('drop' in data) {
    const i = waiting.findIndex((w) => w.id === data.drop)
    if (i >= 0) waiting.splice(i, 1)
    return
  }
  waiting.push(data)
  if (ready && waiting.length === 1) turn.port2.postMessage(null)
}

here.mallowReady = () => {
  ready = true
  here.postMessage({ ready: true })
  if (waiting.length) turn.port2.postMessage(null)
}
const go = new Go()
void WebAssembly.instantiateStreaming(fetch(url), go.importObject).then(
  async ({ instance }) => {
    await go.run(instance) // which it never leaves
    here.postMessage({ failed: 'the core ended' })
  },
  (e: unknown) => here.postMessage({ failed: String(e) }),
)
