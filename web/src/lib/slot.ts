// Where a window keeps the change that is on its way, so that it is not lost
// when Mallow or the window goes. Every window has a slot of its own; what a
// window left behind that is gone is taken up by the next one on the same job.
import type { Job } from '../gen/api'
import { since, type Change } from './doc'

export interface Pending {
  base: number
  /** Of the database that the base revision is of. */
  generation: string
  /** What the change was made to. */
  from: Job | undefined
  /** That is the base revision, to the last field: the edits say all. */
  exact: boolean
  doc: Job
  what: string
  /** The edits of the base revision, where that is not at hand. */
  edits?: Change[]
}

/** What a window left unsaved: edits of a revision, or the whole document. */
export type Left = { base: number; generation?: string; what: string } & (
  { edits: Change[] } | { edits?: undefined; from: Job | undefined; doc: Job }
)

/** The edits of the base revision that a change is; nothing where it is not known to the last field. */
export const editsOf = (p: Pending) => p.edits ?? (p.exact && p.from ? since(p.from, p.doc) : undefined)

const OWN = crypto.getRandomValues(new Uint32Array(2)).join('-')
const PREFIX = 'mallow.unsaved.'
const held = (owner: string) => `mallow.window.${owner}`

// A lock lives as long as its window: it tells the living from the gone.
const locks = 'locks' in navigator ? navigator.locks : undefined
void locks?.request(held(OWN), () => new Promise(() => undefined))

export class Slot {
  constructor(private readonly job: () => string) {}

  private get key() {
    return `${PREFIX}${this.job()}.${OWN}`
  }

  keep(p: Pending) {
    const edits = editsOf(p)
    const left: Left = edits
      ? { base: p.base, generation: p.generation, edits, what: p.what }
      : { base: p.base, generation: p.generation, from: p.from, doc: p.doc, what: p.what }
    try {
      localStorage.setItem(this.key, JSON.stringify(left))
    } catch {
      // Larger than a browser keeps: it is saved from here, as long as the window is open.
    }
  }

  clear() {
    localStorage.removeItem(this.key)
  }
}

/** Whether the window that owns a slot is still there; without locks, one cannot know, and its slot stays its own. */
async function gone(owner: string): Promise<boolean> {
  if (!locks) return false
  return locks.request(held(owner), { ifAvailable: true }, (lock) => lock !== null)
}

/** Takes what a window that is gone left unsaved of a job, if any did. */
export async function kept(job: string): Promise<Left | null> {
  const prefix = `${PREFIX}${job}`
  for (const key of Object.keys(localStorage)) {
    // Before windows had slots of their own there was one for all.
    const owner = key === prefix ? '' : key.startsWith(prefix + '.') ? key.slice(prefix.length + 1) : OWN
    if (owner === OWN || (owner && !(await gone(owner)))) continue
    const text = localStorage.getItem(key)
    localStorage.removeItem(key)
    if (!text) continue
    let p: Left
    try {
      p = JSON.parse(text) as Left
    } catch {
      continue // not ours, or cut short: nothing that could be saved
    }
    if ((p?.edits ?? p?.doc) && typeof p.base === 'number') return p
  }
  return null
}
