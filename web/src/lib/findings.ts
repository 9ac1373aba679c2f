// What does not fit: whether it is of what is worked on, and where it stands.
// The plan has it in order, the gravest and dearest first.
import type { Finding } from '../gen/api'
import type { Session } from './session.svelte'

/** It is of the run that is worked on, or of its line. */
export const isHere = (session: Session, f: Finding) =>
  f.place.run ? f.place.run === session.run.id : !f.place.line || f.place.line === session.line.id

export const keyOf = (f: Finding) => f.rule + JSON.stringify(f.place) + (f.field ?? '')

/** Where on the run it stands, millimetres from its start. */
export function stationOf(session: Session, f: Finding): number | undefined {
  const run = session.run
  if (f.place.run !== run.id) return undefined
  const post = run.posts.find((p) => p.label === f.place.post || p.id === f.place.post)
  if (post) return post.station
  const bay = run.bays.findIndex((b) => b.label === f.place.bay || b.id === f.place.bay)
  if (bay >= 0) return ((run.posts[bay]?.station ?? 0) + (run.posts[bay + 1]?.station ?? 0)) / 2
  const gate = run.gates.find((g) => g.id === f.place.gate)
  return gate?.at
}

/** How a finding looks, by its gravity; what is missing is asked for, and looks like what is to be checked. */
export const tone: Record<Finding['severity'], string> = {
  missing: 'border-l-warn bg-warn-wash',
  cannot: 'border-l-stop bg-stop-wash',
  check: 'border-l-warn bg-warn-wash',
  note: 'border-l-line bg-sheet',
}
