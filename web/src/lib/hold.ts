// Posts that are held where they are: what changes in the job when one is
// pulled, held, or let go.
import type { FixedPost, PlannedPost } from '../gen/api'
import type { Change } from './doc'
import type { Session } from './session.svelte'

const held = (session: Session) => session.value<FixedPost[]>(session.at('/fixedPosts')) ?? []

/** A name for a new one that no other has. */
export function freshID(list: { id: string }[], letter: string): string {
  let n = list.length + 1
  while (list.some((x) => x.id === `${letter}${n}`)) n++
  return letter + n
}

/** Only posts between the fixed ones can be pulled. */
export const canHold = (p: PlannedPost) => p.kind === 'line' && !p.stays

/** How far the post at a place can be moved: posts that do not move are real stops, a post's width off. */
export function stopsOf(session: Session, index: number): { least: number; most: number } {
  const posts = session.run.posts
  const wide = session.value<number>(session.at('/post/width')) ?? 0
  const own = posts[index]?.held
  const fixed = (p: PlannedPost) => p.kind !== 'line' || p.stays || (p.held && p.held !== own)
  let [a, z] = [index - 1, index + 1]
  while (a > 0 && !fixed(posts[a]!)) a--
  while (z < posts.length - 1 && !fixed(posts[z]!)) z++
  return { least: (posts[a]?.station ?? 0) + wide, most: (posts[z]?.station ?? session.run.length) - wide }
}

/** Holds a post at a station; `id` is the held post that it is, or a new one. */
export function holdAt(session: Session, id: string, at: number, landed?: boolean): Change[] {
  const list = held(session)
  const known = list.some((f) => f.id === id)
  const next = known
    ? list.map((f) => (f.id === id ? { ...f, at, ...(landed === undefined ? {} : { landed }) } : f))
    : [...list, { id, at, ...(landed ? { landed } : {}) }]
  return [{ path: session.at('/fixedPosts'), value: next }]
}

/** Holds a grade post at a station, and the gap under the fence there where one is given. */
export function breakAt(session: Session, id: string, at: number, gap?: number): Change[] {
  const list = held(session)
  const post = { id, at, grade: true, ...(gap === undefined ? {} : { gap }) }
  const next = list.some((f) => f.id === id)
    ? list.map((f) => (f.id === id ? { ...f, ...post } : f))
    : [...list, post]
  return [{ path: session.at('/fixedPosts'), value: next }]
}

export const newHold = (session: Session) => freshID(held(session), 'F')

export function letGo(session: Session, id: string): Change[] {
  return [{ path: session.at('/fixedPosts'), value: held(session).filter((f) => f.id !== id) }]
}
