// How far each post is, by what was written down of it, and what can differ.
import type { View } from '../drawing/view.svelte'
import type { Fact, PlannedPost } from '../gen/api'
import { read } from './doc'
import type { Session } from './session.svelte'
import * as msg from '../gen/messages'

/** What is done at a post, in order. */
export const marks = ['staked', 'dug', 'set', 'poured', 'built'] as const
export type Mark = (typeof marks)[number]

const REACHED: Partial<Record<Fact['what'], number>> = {
  staked: 1,
  dug: 2,
  depth: 2,
  set: 3,
  poured: 4,
  bags: 4,
  built: 5,
}

/** How many of the marks each post has, by its id. */
export function reached(session: Session): Map<string, number> {
  const facts = (read(session.doc, '/observed') as Fact[] | undefined) ?? []
  const struck = new Set(facts.map((f) => f.strikes))
  const out = new Map<string, number>()
  for (const f of facts) {
    const n = REACHED[f.what]
    if (!n || struck.has(f.id) || !f.on.startsWith('post/')) continue
    const id = f.on.slice(5)
    out.set(id, Math.max(out.get(id) ?? 0, n))
  }
  return out
}

/** Posts of the run that are dug and set in it, each with its place among all of the run's. */
export const own = (session: Session): { post: PlannedPost; at: number }[] =>
  session.run.posts.flatMap((post, at) => (post.shared || post.stays ? [] : [{ post, at }]))

/** Picks a post wherever it is, and brings it into the drawing. */
export function goTo(session: Session, view: View, run: string, post: string) {
  session.pickRun(run)
  const at = session.run.posts.findIndex((p) => p.id === post)
  if (at < 0) return
  session.post = at
  view.show(session.drawn.posts[session.drawnPost]!.station)
}

/** What people call a way that was decided on: "wider 2" is one of the ways to dig wider. */
export const wayName = (session: Session, way: string) =>
  session.catalogue.todo.find((t) => t.value === way || t.value === way.split(' ')[0])?.name ?? way

/** One thing that can differ, and how it is entered. */
export interface Differing {
  id: string
  name: string
  what: Fact['what']
  /** What is entered: a length, a number, or words. */
  enter: 'length' | 'number' | 'words'
  /** The two hands that it can be on, the positive first. */
  sides?: [string, string]
  hint?: (of: { before: string }) => string
}

export const differing: Differing[] = [
  {
    id: 'gap',
    name: msg.log_from_last,
    what: 'landed',
    enter: 'length',
    hint: ({ before }) => msg.log_from_last_hint({ before }),
  },
  {
    id: 'line',
    name: msg.log_off_string,
    what: 'line',
    enter: 'length',
    sides: [msg.log_left, msg.log_right],
  },
  { id: 'depth', name: msg.log_depth, what: 'depth', enter: 'length' },
  { id: 'width', name: msg.log_width, what: 'width', enter: 'length' },
  { id: 'rock', name: msg.log_rock, what: 'rock', enter: 'length', hint: () => msg.log_hit_hint },
  { id: 'water', name: msg.log_water, what: 'water', enter: 'length', hint: () => msg.log_hit_hint },
  { id: 'root', name: msg.log_root, what: 'root', enter: 'length', hint: () => msg.log_hit_hint },
  { id: 'service', name: msg.log_service, what: 'service', enter: 'length', hint: () => msg.log_hit_hint },
  { id: 'gravel', name: msg.log_gravel, what: 'gravel', enter: 'number' },
  { id: 'bags', name: msg.common_bags_2, what: 'bags', enter: 'number' },
  {
    id: 'plumb',
    name: msg.log_plumb_along,
    what: 'plumb',
    enter: 'length',
    sides: [msg.log_leans_on, msg.log_leans_back],
  },
  {
    id: 'lean',
    name: msg.log_plumb_across,
    what: 'lean',
    enter: 'length',
    sides: [msg.log_left, msg.log_right],
  },
  { id: 'top', name: msg.log_top, what: 'top', enter: 'length', sides: [msg.log_too_high, msg.log_too_low] },
  { id: 'cut', name: msg.log_cut, what: 'cut', enter: 'length', hint: () => msg.log_cut_hint },
  { id: 'note', name: msg.log_note, what: 'note', enter: 'words' },
]
