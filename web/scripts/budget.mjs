// What a browser must have before a page first shows, compressed: what the
// page's own module and all that it imports weigh. Fails where it is over.
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'

const dist = new URL('../dist/app/', import.meta.url)
const manifest = JSON.parse(readFileSync(new URL('manifest.json', dist), 'utf8'))

function graph(entry, seen = new Set()) {
  if (!manifest[entry]) throw new Error(`${entry} is not built`)
  if (seen.has(entry)) return seen
  seen.add(entry)
  for (const next of manifest[entry].imports ?? []) graph(next, seen)
  return seen
}

/** Bytes of scripts, gzipped, of what is needed for some entries together. */
function weight(entries) {
  const all = new Set(entries.flatMap((e) => [...graph(e)]))
  let bytes = 0
  for (const one of all)
    bytes += gzipSync(readFileSync(new URL(manifest[one].file, dist)), { level: 9 }).length
  return bytes
}

const page = 'index.html'
const job = 'src/job/JobPage.svelte'
const pages = [
  { name: 'list of jobs', entries: [page, 'src/jobs/JobList.svelte'], most: 60_000 },
  { name: 'a job, before its bench', entries: [page, job], most: 120_000 },
  ...[
    'walk/Walk',
    'string/StringBench',
    'space/Space',
    'grade/Grade',
    'gates/GatesBench',
    'dig/Dig',
    'pour/Pour',
    'build/Build',
    'days/Days',
    'log/Log',
  ].map((s) => ({
    name: `a job with ${s.split('/')[0]}`,
    entries: [page, job, `src/bench/${s}.svelte`],
    most: 151_000,
  })),
]
let over = false
for (const { name, entries, most } of pages) {
  const bytes = weight(entries)
  over ||= bytes > most
  console.log(`${name}: ${bytes} B gzipped, at most ${most}${bytes > most ? ' — TOO MUCH' : ''}`)
}
process.exit(over ? 1 : 0)
