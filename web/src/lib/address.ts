// The addresses of places in a job.
import { go } from './router'
import type { Stage } from './stages'

/** A place in a job, as an address tells it. */
export interface Spot {
  run?: string
  stage?: Stage
  part?: string
  post?: string
  gate?: string
}

/** The address of a place in a job. */
export function addressOf(job: string, spot: Spot): string {
  const path = ['', 'jobs', job]
  if (spot.run) path.push('runs', spot.run)
  if (spot.run && spot.stage) path.push(spot.stage)
  if (spot.run && spot.stage && spot.part) path.push(spot.part)
  const query = new URLSearchParams()
  if (spot.post) query.set('post', spot.post)
  if (spot.gate) query.set('gate', spot.gate)
  const asked = query.toString()
  return path.map((p, i) => (i ? encodeURIComponent(p) : p)).join('/') + (asked ? `?${asked}` : '')
}

/** Shows a place in the address bar. Another run, stage or part is a step that back undoes. */
export function showAddress(job: string, spot: Spot) {
  const to = addressOf(job, spot)
  const now = location.pathname + location.search
  if (to === now) return
  const [path] = to.split('?')
  // From the bare address of a job to a place in it is no step, nor is another post.
  go(to, path === location.pathname || location.pathname === addressOf(job, {}))
}
