// What was seen on site: facts about a post or a gate, written down one after
// another. A wrong one is struck out by a later one, never changed.
import type { Fact, Laid, PlannedGate, PlannedPost } from '../gen/api'
import { at, newID, read, type Change } from './doc'
import type { Session } from './session.svelte'
import { writer } from './writer.svelte'
import { wrongSays } from './wrong'

type What = Fact['what']

const all = (session: Session) => (read(session.doc, '/observed') as Fact[] | undefined) ?? []
const on = (kind: string, ...ids: string[]) => at('', kind, ...ids).slice(1)

export const ofPost = (post: PlannedPost) => on('post', post.id)
export const ofGate = (session: Session, gate: PlannedGate) => on('gate', session.run.id, gate.id)

/** The facts about something that hold, in the order of writing down. */
export function standing(session: Session, about: string, ...what: What[]): Fact[] {
  const facts = all(session)
  const struck = new Set(facts.map((f) => f.strikes))
  return facts.filter(
    (f) =>
      f.on === about &&
      f.what !== 'struck out' &&
      !struck.has(f.id) &&
      (!what.length || what.includes(f.what)),
  )
}

/** Now, by this clock: the day of the record is the crew's day. */
function clock(): string {
  const now = new Date()
  const ahead = -now.getTimezoneOffset()
  const two = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0')
  const here = new Date(now.getTime() + ahead * 60_000).toISOString().slice(0, 19)
  return ahead === 0 ? here + 'Z' : `${here}${ahead < 0 ? '-' : '+'}${two(ahead / 60)}:${two(ahead % 60)}`
}

/** When something is written down, and by whom, as far as that is known here. */
const stamp = (): Pick<Fact, 'when' | 'who'> => ({
  when: clock(),
  ...(writer.name ? { who: writer.name } : {}),
})

/** Writes facts down, each after the one before it. */
function write(session: Session, facts: Omit<Fact, 'id'>[]): Change[] {
  const list = [...all(session)]
  return facts.map((f) => {
    const fact: Fact = { id: newID(list, 'f'), ...stamp(), ...f }
    list.push(fact)
    return { path: at('/observed', fact.id), value: fact }
  })
}

/** Strikes facts out. */
export const strike = (session: Session, facts: Fact[]): Change[] =>
  write(
    session,
    facts.map((f) => ({ on: f.on, what: 'struck out' as const, strikes: f.id })),
  )

/** Strikes out what was said before and says something else; nothing where there is nothing else. */
export function instead(session: Session, before: Fact[], now: Omit<Fact, 'id'>[]): Change[] {
  const struck = before.map((f) => ({ on: f.on, what: 'struck out' as const, strikes: f.id }))
  return write(session, [...struck, ...now])
}

/** The unit that a length is read in. */
export const readIn = (session: Session): Fact['unit'] => (session.units.system === 'metric' ? 'mm' : 'in')

/** Where a post is dug: its own run, or the one that ends there. */
function place(session: Session, post: PlannedPost) {
  const run = session.plan.runs.find((r) => r.id === (post.shared ?? session.run.id))!
  return { run, at: post.shared ? run.length : post.station }
}

/** Facts about a post stay with it: the document knows the run's posts by their names from now on. */
export function known(session: Session, post: PlannedPost): Change[] {
  const { run } = place(session, post)
  const laid = (read(session.doc, at(run.path, 'laid')) as Laid[] | undefined) ?? []
  if (laid.some((l) => l.id === post.id)) return []
  const own = run.posts.filter((p) => !p.shared)
  const value = own.map((p): Laid => ({ id: p.id, at: Math.round(p.station), ...(p.by ? { by: p.by } : {}) }))
  return [{ path: at(run.path, 'laid'), value }]
}

/** A fact about a post. */
export const seen = (post: PlannedPost, fact: Omit<Fact, 'id' | 'on'>): Omit<Fact, 'id'> => ({
  on: ofPost(post),
  ...fact,
})

/** Where on its run a post's hole is. */
export const stationOf = (session: Session, post: PlannedPost) => place(session, post).at

/** Writes a fact about a post down. */
export const note = (session: Session, post: PlannedPost, fact: Omit<Fact, 'id' | 'on'>): Change[] => [
  ...known(session, post),
  ...write(session, [seen(post, fact)]),
]

/** Writes facts about posts of the run that is worked on down, all in one change. */
export function noteAll(
  session: Session,
  all: { post: PlannedPost; fact: Omit<Fact, 'id' | 'on'> }[],
): Change[] {
  const runs = new Set<string>()
  const laid = all.flatMap(({ post }) => {
    const run = post.shared ?? session.run.id
    if (runs.has(run)) return []
    const changes = known(session, post)
    if (changes.length) runs.add(run)
    return changes
  })
  return [
    ...laid,
    ...write(
      session,
      all.map(({ post, fact }) => seen(post, fact)),
    ),
  ]
}

/**
 * The edits of a way that is taken. The facts among them get their ids now, with when and by whom: what
 * was written down since the way was worked out has an id of its own, and keeps it.
 */
export function taken(session: Session, edits: { path: string; value?: unknown }[]): Change[] {
  const list = [...all(session)]
  return edits.map((e) => {
    if (!e.path.startsWith('/observed/')) return { path: e.path, value: e.value }
    const fact: Fact = { ...(e.value as Fact), id: newID(list, 'f'), ...stamp() }
    list.push(fact)
    return { path: at('/observed', fact.id), value: fact }
  })
}

/** A post landed at a station, or is struck out as landed. */
export function landed(session: Session, post: PlannedPost, station: number | null): Change[] {
  const before = standing(session, ofPost(post), 'landed')
  const now = station === null ? [] : [seen(post, { what: 'landed', at: station })]
  return [...known(session, post), ...instead(session, before, now)]
}

/** What is wrong with the fact that was just written down. */
export const wrongFact = (session: Session): string => {
  const e = session.store.errors.find((e) => e.field.startsWith('/observed/'))
  return e ? wrongSays(e) : ''
}
