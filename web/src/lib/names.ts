import type { Catalogue, PlannedPost, PlannedRun } from '../gen/api'

/** The server tells what choices are called: its table is the only one. */
let choices: Catalogue['choices'] = {}
let bags: Catalogue['bags'] = []

export function nameChoices(catalogue: Catalogue) {
  choices = catalogue.choices
  bags = catalogue.bags
}

/** What a value of a field is called; the field by its place or its whole path. */
export function choiceName(choice: string, field: string): string {
  const place = field.split('/').slice(-2).join('/')
  if (place === 'setting/bag') return bags.find((b) => b.id === choice)?.name ?? choice
  const list = choices[place] ?? choices[field.split('/').at(-1)!]
  return list?.find((c) => c.value === choice)?.name ?? choice
}

/** A gate post by what it does: hinges, latch, or guiding a sliding leaf. */
export function postRole(p: PlannedPost, run: PlannedRun): string {
  if (p.kind !== 'gate') return kindName[p.kind] ?? p.kind
  if (p.hung) return 'hinge'
  return run.gates.find((g) => g.id === p.gate)?.kind === 'swing' ? 'latch' : 'gate'
}

export const kindName: Record<string, string> = { end: 'end', corner: 'corner', gate: 'gate', line: 'line' }
