// Posts that are held where they are: what changes in the job when one is
// pulled, held, or let go.
import type { FixedPost, PlannedPost } from '../gen/api'
import { at, newID, type Change } from './doc'
import { landed } from './observed'
import type { Session } from './session.svelte'

const held = (session: Session) => session.value<FixedPost[]>(session.at('/fixedPosts')) ?? []

/** Only posts between the fixed ones can be pulled, and none that stands already. */
export const canHold = (p: PlannedPost) => p.kind === 'line' && !p.stays && !p.landed

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
export const holdAt = (session: Session, id: string, to: number, more: Partial<FixedPost> = {}): Change[] => [
  {
    path: at(session.at('/fixedPosts'), id),
    value: { ...held(session).find((f) => f.id === id), id, at: to, ...more },
  },
]

/** Holds a grade post at a station, and the gap under the fence there where one is given. */
export const breakAt = (session: Session, id: string, to: number, gap?: number): Change[] =>
  holdAt(session, id, to, { grade: true, ...(gap === undefined ? {} : { gap }) })

export const newHold = (session: Session) => newID(held(session), 'F')

/** Lets a held post go; where it landed there, that is struck out. */
export function letGo(session: Session, id: string): Change[] {
  const post = session.run.posts.find((p) => p.held === id)
  return [
    { path: at(session.at('/fixedPosts'), id), value: null },
    ...(post?.landed ? landed(session, post, null) : []),
  ]
}
