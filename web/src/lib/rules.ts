// Rules for holes at their levels: whole job, run, kind of post, single post.
// The plan says what is in force at each level and who said it; here is only
// where a change of it is written.
import type {
  HoleRules,
  KindRules,
  PlannedPost,
  Rule,
  RuleLevel,
  SettingRules,
  HoleOverride,
} from '../gen/api'
import type { Change } from './doc'
import { read } from './doc'
import { freshID } from './hold'
import type { Scope } from './scope'
import type { Session } from './session.svelte'

/** A level's rules, with how a change of them is written. */
export interface Level {
  scope: Scope
  name: string
  rules: RuleLevel
  /** The run, or its neighbour where the corner post is dug, that holds a single post's rules. */
  run: string
  post?: PlannedPost
}

export interface FieldPath {
  list: 'hole' | 'setting'
  field: string
}

const split = (path: string): FieldPath => {
  const [list, field] = path.split('/')
  return { list: list as 'hole' | 'setting', field: field! }
}

/** The rules at a level. */
export function levelOf(session: Session, scope: Scope): Level {
  const run = session.run
  if (scope === 'job') return { scope, name: 'the whole job', rules: session.plan.levels, run: '' }
  const levels = run.levels
  const here = levels[0]!
  if (scope === 'run') return { scope, name: run.name || run.id, rules: here, run: run.path }
  if (scope !== 'post') {
    const kind = levels.find((l) => l.level === 'kind' && l.kind === scope)!
    return { scope, name: kind.name, rules: kind, run: run.path }
  }
  const post = run.posts[session.post]!
  const own = levels.find((l) => l.level === 'post' && l.post === post.id)
  const kind = levels.find((l) => l.level === 'kind' && l.kind === post.kind) ?? here
  const spots = (read(session.doc, `${run.path}/spots`) as HoleOverride[] | undefined) ?? []
  const rules = own ?? {
    ...kind,
    level: 'post' as const,
    name: post.id,
    path: `${run.path}/spots/${spots.length}`,
    there: false,
  }
  return { scope, name: `${post.id} alone`, rules, run: run.path, post }
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
export function say(session: Session, level: Level, values: Record<string, unknown>): Change[] {
  const paths = Object.entries(values)
  if (level.rules.there) return paths.map(([path, value]) => ({ path: `${level.rules.path}/${path}`, value }))
  const fresh: { hole?: HoleRules; setting?: SettingRules } = {}
  for (const [path, value] of paths) {
    if (value === null) continue
    const { list, field } = split(path)
    const into = (fresh[list] ??= {}) as Record<string, unknown>
    const deep = path.split('/')[2]
    if (deep) (into[field] = (into[field] ?? {}) as Record<string, unknown>)[deep] = value
    else into[field] = value
  }
  if (level.scope === 'post') {
    const spots = (read(session.doc, `${level.run}/spots`) as HoleOverride[] | undefined) ?? []
    const spot: HoleOverride = { id: freshID(spots, 'S'), at: level.post!.station, ...fresh }
    return [{ path: `${level.run}/spots`, value: [...spots, spot] }]
  }
  const kinds = (read(session.doc, `${level.run}/kinds`) as KindRules[] | undefined) ?? []
  return [
    { path: `${level.run}/kinds`, value: [...kinds, { kind: level.rules.kind!, ...fresh } as KindRules] },
  ]
}

/** Marks a post's hole as stopped, or takes that back. */
export function stopAt(session: Session, post: PlannedPost, hit: HoleOverride['hit'] | null): Change[] {
  const path = `${session.run.path}/spots`
  const spots = (read(session.doc, path) as HoleOverride[] | undefined) ?? []
  const known = spots.some((s) => s.id === post.spot)
  if (known) {
    const next = spots.map((s) => {
      if (s.id !== post.spot) return s
      const rest: HoleOverride = { ...s }
      delete rest.hit
      return hit ? { ...rest, hit } : rest
    })
    return [{ path, value: hit ? next : next.filter((s) => s.id !== post.spot || s.hole || s.setting) }]
  }
  return hit ? [{ path, value: [...spots, { id: freshID(spots, 'S'), at: post.station, hit }] }] : []
}
