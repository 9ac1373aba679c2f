import type { MethodChoice, PlannedPost, PlannedRun } from '../gen/api'

// What choices are called on screen.
const names: Record<string, string> = {
  none: 'no share',
  quarter: 'a quarter',
  third: 'a third',
  half: 'a half',
  fill: 'fill low ground',
  cut: 'cut high ground',
  both: 'half and half',
  level: 'level',
  stepped: 'stepped',
  raked: 'raked',
  face: 'on the faces',
  off: 'just off the faces',
  'stand-off': 'stand-off',
  sight: 'by sight',
  round: 'round',
  square: 'square',
  cover: 'soil over it',
  crown: 'crowned above ground',
  open: 'open: fills as it is set',
  closed: 'closed at the foot',
  core: 'with a steel core',
  line: 'line posts',
  all: 'all posts',
}

/** The server tells what ways of setting are called: its table is the only one. */
export function nameMethods(methods: MethodChoice[]) {
  for (const m of methods) names[m.id] = m.name
}

export function choiceName(choice: string, field = ''): string {
  if (choice === 'none' && field.endsWith('driven')) return 'none driven'

  return names[choice] ?? choice.replace(/^(\d+)(lb|kg)$/, '$1 $2 bag')
}

/** A gate post by what it does: hinges, latch, or guiding a sliding leaf. */
export function postRole(p: PlannedPost, run: PlannedRun): string {
  if (p.kind !== 'gate') return kindName[p.kind] ?? p.kind
  if (p.hung) return 'hinge'
  return run.gates.find((g) => g.id === p.gate)?.kind === 'swing' ? 'latch' : 'gate'
}

export const kindName: Record<string, string> = { end: 'end', corner: 'corner', gate: 'gate', line: 'line' }
