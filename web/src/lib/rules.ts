// Rules for holes at their levels: whole job, run, kind of post, single post.
// The plan says what is in force at each level and who said it; here is only
// where a change of it is written.
import type { Fact, PlannedPost, Rule, RuleLevel, HoleOverride } from '../gen/api'
import { at, names, newID, read, type Change } from './doc'
import { instead, known, ofPost, readIn, seen, standing, stationOf } from './observed'
import type { Scope } from './scope'
import type { Session } from './session.svelte'
import * as msg from '../gen/messages'

/** A level's rules, with how a change of them is written. */
export interface Level {
  scope: Scope
  name: string
  rules: RuleLevel
  /** The run, or its neighbour where the corner post is dug, that holds a single post's rules. */
  run: string
  post?: PlannedPost
}

/** The rules at a level. */
export function levelOf(session: Session, scope: Scope): Level {
  const run = session.run
  if (scope === 'job') return { scope, name: msg.rules_the_whole_job, rules: session.plan.levels, run: '' }
  const levels = run.levels
  const here = levels[0]!
  if (scope === 'run') return { scope, name: run.name || run.id, rules: here, run: run.path }
  if (scope !== 'post') {
    const kind = levels.find((l) => l.level === 'kind' && l.kind === scope)!
    return { scope, name: kind.name, rules: kind, run: run.path }
  }
  const post = run.posts[session.post]!
  const own = levels.find((l) => l.level === 'post' && l.post === post.label)
  const kind = levels.find((l) => l.level === 'kind' && l.kind === post.kind) ?? here
  const spots = (read(session.doc, at(run.path, 'overrides')) as HoleOverride[] | undefined) ?? []
  const rules = own ?? {
    ...kind,
    level: 'post' as const,
    name: post.label,
    path: at(run.path, 'overrides', newID(spots, 'S')),
    there: false,
  }
  return { scope, name: msg.common_alone({ label: post.label }), rules, run: run.path, post }
}

/** Rules that are for posts of one kind are not shown where posts of another are looked at. */
const strangers: Record<string, string[]> = { gate: ['end', 'corner', 'line'], end: ['gate', 'line'] }

/** The rules of one part that matter at a level as things stand. */
export function rulesOf(session: Session, level: Level, part: Rule['part']): Rule[] {
  const matters = ({ where, posts, whole }: Rule) => {
    if (posts && strangers[posts]!.includes(level.scope)) return false
    if (whole && level.scope !== 'job' && level.scope !== 'run') return false
    if (!where) return true
    const is = level.rules.values[where.field]
    if (where.is) return where.is.includes(String(is))
    return where.not ? !where.not.includes(String(is)) : Number(is) > 0
  }
  return session.catalogue.rules.filter((r) => r.part === part && matters(r))
}

/** What the level itself says of a field; undefined where it leaves it to others. */
export function own(session: Session, level: Level, path: string): unknown {
  return level.rules.there ? read(session.doc, `${level.rules.path}/${path}`) : undefined
}

/** The changes that make a level say something; null takes it back. */
export function say(level: Level, values: Record<string, unknown>): Change[] {
  const out = Object.entries(values)
    .map(([path, value]) => ({ path: `${level.rules.path}/${path}`, value }))
    .filter((c) => c.value !== null || level.rules.there)
  if (level.rules.there || level.scope !== 'post') return out
  const spot = { id: names(level.rules.path).at(-1)!, at: level.post!.station }
  return [{ path: level.rules.path, value: spot }, ...out]
}

/** What stops a hole. */
export type Stop = 'rock' | 'water' | 'root'

/** What stopped a post's hole, if anything did. */
export const stopOf = (session: Session, post: PlannedPost): Fact | undefined =>
  standing(session, ofPost(post), 'rock', 'water', 'root').at(-1)

/** Notes that a post's hole was stopped, or strikes that out, with what was decided of it. */
export function stopAt(
  session: Session,
  post: PlannedPost,
  hit: { what: Stop; depth: number } | null,
): Change[] {
  const before = standing(session, ofPost(post), 'rock', 'water', 'root')
  const where = stationOf(session, post)
  const now = hit ? [seen(post, { what: hit.what, at: where, value: hit.depth, unit: readIn(session) })] : []
  const path = at(session.run.path, 'overrides')
  const own = ((read(session.doc, path) as HoleOverride[] | undefined) ?? []).find((o) => o.id === post.spot)
  const settled: Change[] = []
  if (!hit && own?.settled)
    settled.push({ path: at(path, own.id, ...(own.hole || own.setting ? ['settled'] : [])), value: null })
  return [...known(session, post), ...instead(session, before, now), ...settled]
}
