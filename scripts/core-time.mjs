// Times the core as WebAssembly, in Node: the calls of a gate that is dragged,
// each of another document.
import { readFileSync } from 'node:fs'

const file = (path) => new URL(`../${path}`, import.meta.url)
await import(file('web/core/wasm_exec.js'))
const go = new globalThis.Go()
const ready = new Promise((done) => (globalThis.mallowReady = done))
const began = performance.now()
const { instance } = await WebAssembly.instantiate(readFileSync(file('web/core/core.wasm')), go.importObject)
void go.run(instance)
await ready
console.log(`core ready after ${(performance.now() - began).toFixed(0)} ms`)
const doc = JSON.parse(readFileSync(file('demo/jobs/1-tansy-bank.json'), 'utf8'))
const text = new TextEncoder()
for (const call of ['plan', 'tell', 'bill']) {
  const times = []
  for (let i = 0; i < 120; i++) {
    doc.lines[0].runs[0].gates[0].at += 3
    const start = performance.now()
    let answer
    const problem = globalThis.mallowCore(call, text.encode(JSON.stringify(doc)), (a) => (answer = a))
    if (problem || !answer) throw new Error(problem)
    times.push(performance.now() - start)
  }
  times.sort((a, b) => a - b)
  console.log(`${call}: median ${times[60].toFixed(1)} ms, p95 ${times[114].toFixed(1)} ms of ${times.length}`)
}
process.exit(0)
