// What of a run is in sight.
import type { PlannedRun } from '../gen/api'
import type { View } from './view.svelte'

/** The first of a list in order whose value is not under a limit. */
function reach(n: number, under: (i: number) => boolean): number {
  let [low, high] = [0, n]
  while (low < high) {
    const middle = (low + high) >> 1
    if (under(middle)) low = middle + 1
    else high = middle
  }
  return low
}

/** The posts in sight, with one to spare either side. */
export function inSight(run: PlannedRun, view: View): { first: number; last: number } {
  const posts = run.posts
  const first = reach(posts.length, (i) => posts[i]!.station < view.from)
  const last = reach(posts.length, (i) => posts[i]!.station <= view.to)
  return { first: Math.max(0, first - 1), last: Math.min(posts.length - 1, last) }
}

/** The post nearest to a station. */
export function nearest(run: PlannedRun, station: number): number {
  const posts = run.posts
  const after = reach(posts.length, (i) => posts[i]!.station < station)
  if (!after) return 0
  if (after === posts.length) return posts.length - 1
  return posts[after]!.station - station < station - posts[after - 1]!.station ? after : after - 1
}
