// The addresses of figures that can be explained.
import type { Figure } from '../gen/api'

type What = 'station' | 'top' | 'holeWidth' | 'holeDepth' | 'concrete' | 'stock' | 'gust'

export const ofPost = (run: { id: string }, post: { id: string }, what: What): Figure => ({
  run: run.id,
  of: 'post',
  id: post.id,
  what,
})
export const ofBay = (
  run: { id: string },
  bay: { id: string },
  what: 'spacing' | 'gap' | 'lean',
): Figure => ({
  run: run.id,
  of: 'bay',
  id: bay.id,
  what,
})
export const ofGate = (
  run: { id: string },
  gate: { id: string },
  what: 'inside' | 'clear' | 'swing' | 'pull',
): Figure => ({ run: run.id, of: 'gate', id: gate.id, what })
export const ofString = (run: { id: string }, what: 'constant' | 'sag' | 'drift'): Figure => ({
  run: run.id,
  of: 'string',
  what,
})
export const ofPart = (run: { id: string }, part: { id: string }): Figure => ({
  run: run.id,
  of: 'part',
  id: part.id,
})
export const ofTops = (run: { id: string }): Figure => ({ run: run.id, of: 'tops' })
/** Of a run, or of the whole job where none is given. */
export const ofTotals = (
  run: { id: string } | undefined,
  what: 'concrete' | 'gravel' | 'hours' | 'spoil',
): Figure => ({ run: run?.id, of: 'totals', what })
