// Where in the work somebody is, and the address that says so: reload, back
// and a copied address come to the same place.
import type { Scope } from './scope'
import { stages, type Stage } from './stages'
import type { Spot } from './address'

/** The parts of each stage's bench; the first is open at first. */
export const parts = {
  walk: ['line', 'ground', 'way', 'before', 'files', 'notes'],
  string: ['strings'],
  space: ['ways', 'held', 'layouts', 'pieces', 'setout'],
  grade: ['look', 'tops', 'compare', 'along', 'stick', 'set'],
  gates: ['opening', 'swing', 'posts', 'hang', 'passage'],
  dig: ['card', 'rules', 'site', 'holes', 'wind', 'whatif'],
  pour: ['day', 'weather', 'fill', 'curb', 'rules', 'holes', 'totals'],
  build: ['bay', 'parts', 'cuts', 'compare', 'order'],
  days: ['days', 'tasks', 'crew'],
  log: ['post', 'open', 'record', 'inspect', 'usual', 'may'],
} as const satisfies Record<Stage, readonly string[]>

type Parts = { -readonly [S in Stage]: (typeof parts)[S][number] }

export class Navigation {
  /** The stage of the work whose bench is open. */
  stage = $state<Stage>('walk')
  /** The part of each bench that is open. */
  parts = $state<Parts>({
    walk: 'line',
    string: 'strings',
    space: 'ways',
    grade: 'look',
    gates: 'opening',
    dig: 'card',
    pour: 'day',
    build: 'bay',
    days: 'days',
    log: 'post',
  })
  /** Whom the rules that are shown are for. */
  scope = $state<Scope>('run')
  /** The finding that is opened in the list, by its key. */
  finding = $state('')
  /** The page of keys is open. */
  keys = $state(false)
  /** The panel of sheets and files is open. */
  printing = $state(false)

  /** Goes to a stage and part that an address names; what it does not know stays. */
  take(spot: Spot) {
    const stage = stages.find((s) => s.id === spot.stage)?.id
    if (!stage) return
    this.stage = stage
    const known: readonly string[] = parts[stage]
    if (spot.part && known.includes(spot.part)) (this.parts as Record<Stage, string>)[stage] = spot.part
  }
}
