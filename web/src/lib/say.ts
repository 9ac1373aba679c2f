// How the parts of a sentence are printed.
import type { Part, Units } from '../gen/api'
import {
  bulk,
  drying,
  force,
  number,
  pressure,
  short,
  small,
  tape,
  temperature,
  torque,
  weight,
  wind,
} from './tape'

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
  temperature,
  drying,
  number,
  text: () => '',
}

/** Words that are spelled differently in feet and in metres come twice. */
const worded = (p: Part, units: Units) => (p.system && p.system !== units.system ? '' : (p.text ?? ''))

export const say = (p: Part, units: Units) =>
  p.kind === 'text' ? worded(p, units) : printers[p.kind](p.value ?? 0, units)
