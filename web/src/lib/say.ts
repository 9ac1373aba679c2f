// How the parts of a sentence are printed.
import type { Part, Units } from '../gen/api'
import { bulk, force, number, pressure, short, small, tape, torque, weight, wind } from './tape'

const printers: Record<Part['kind'], (v: number, units: Units) => string> = {
  length: short,
  tape,
  small,
  bulk,
  wind,
  mass: weight,
  force,
  moment: torque,
  pressure,
  number,
  text: () => '',
}

export const say = (p: Part, units: Units) =>
  p.kind === 'text' ? (p.text ?? '') : printers[p.kind](p.value ?? 0, units)
