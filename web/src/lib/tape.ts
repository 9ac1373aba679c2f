// Printing lengths as the core prints them. Only printing: the core reads
// entries. Checked against the core's own output (gen/tape.vectors.json).
import type { Units } from '../gen/api'
import * as msg from '../gen/messages'

export const INCH = 25.4
const FOOT = 12 * INCH
const CUBIC_FOOT = 0.028316846592

/** A printed measure: whole part, fraction and unit, so that a fraction can be set as one. */
export interface Printed {
  sign: '' | '-'
  feet?: number
  whole?: number
  numerator?: number
  denominator?: number
  unit: string
}

/** Number of smallest marks nearest to mm; halfway goes away from zero. */
function count(mm: number, mark: number): number {
  const n = Math.floor(Math.abs(mm / mark) + 0.5 + 1e-6)
  return mm < 0 ? -n : n
}

export const round = (mm: number, units: Units) => count(mm, units.smallestMark) * units.smallestMark

export function split(mm: number, units: Units, long: boolean): Printed {
  if (units.system === 'metric') return splitMetric(mm, units, long)
  const per = Math.round(INCH / units.smallestMark)
  let n = count(mm, units.smallestMark)
  const sign = n < 0 ? '-' : ''
  n = Math.abs(n)
  let feet = Math.floor(n / (12 * per))
  n %= 12 * per
  let inches = Math.floor(n / per)
  let numerator = n % per
  let denominator = per
  while (numerator && numerator % 2 === 0) {
    numerator /= 2
    denominator /= 2
  }
  const withFeet = long || feet >= 5
  if (!withFeet) {
    inches += 12 * feet
    feet = 0
  }
  const out: Printed = { sign, unit: '"' }
  if (withFeet) out.feet = feet
  if (!numerator || inches || withFeet) out.whole = inches
  if (numerator) Object.assign(out, { numerator, denominator })
  return out
}

function splitMetric(mm: number, units: Units, long: boolean): Printed {
  const r = round(mm, units)
  const sign = r < 0 ? '-' : ''
  if (!long && Math.abs(r) < 10000) return { sign, whole: Math.abs(r), unit: ' mm' }
  const decimals = units.smallestMark >= 10 ? 2 : 3
  return { sign, unit: ` ${(Math.abs(r) / 1000).toFixed(decimals)} m` }
}

function text(p: Printed): string {
  const parts = []
  if (p.feet !== undefined) parts.push(`${p.feet}'`)
  if (p.whole !== undefined) parts.push(String(p.whole))
  if (p.numerator !== undefined) parts.push(`${p.numerator}/${p.denominator}`)
  return p.sign + (parts.join(' ') + p.unit).trimStart()
}

/** A measure as it is said on site: 42", 7' 8 13/16", 600 mm. */
export const short = (mm: number, units: Units) => text(split(mm, units, false))

/** A running distance: 3' 10 1/2", 11.347 m. */
export const tape = (mm: number, units: Units) => text(split(mm, units, true))

/** A volume as it is ordered. */
export function bulk(m3: number, units: Units): string {
  return units.system === 'metric' ? `${m3.toFixed(2)} m³` : `${(m3 / (27 * CUBIC_FOOT)).toFixed(2)} yd³`
}

/** A volume as it is poured. */
export function small(m3: number, units: Units): string {
  const metric = units.system === 'metric'
  const of = metric ? m3 * 1000 : m3 / CUBIC_FOOT
  const fine = (metric ? 1 : 2) - (Math.abs(of) >= (metric ? 10 : 1) ? 1 : 0)
  return `${of.toFixed(fine)} ${metric ? 'L' : 'ft³'}`
}

/** Whole, and under ten with two figures or so. */
function figures(v: number): string {
  const a = Math.abs(v)
  return v.toFixed(a === 0 || a >= 9.95 ? 0 : a >= 0.995 ? 1 : a >= 0.0995 ? 2 : 3)
}

export function weight(kg: number, units: Units): string {
  return units.system === 'metric' ? `${figures(kg)} kg` : `${figures(kg / 0.45359237)} lb`
}

const POUND_FORCE = 4.4482216152605
const QUART = 946.352946e-6
/** A volume of water in cubic metres: quarts or gallons, or litres. */
export const water = (m3: number, units: Units) =>
  units.system === 'metric'
    ? `${(m3 * 1000).toFixed(1)} L`
    : m3 < 4 * QUART
      ? `${(m3 / QUART).toFixed(1)} qt`
      : `${(m3 / QUART / 4).toFixed(1)} gal`
/** Degrees Celsius, as they are said. */
export const temperature = (c: number, units: Units) =>
  units.system === 'metric' ? `${Math.round(c)} °C` : `${Math.round(c * 1.8 + 32)} °F`
/** Water that leaves fresh concrete, kilograms to the square metre and hour. */
export const drying = (v: number, units: Units) =>
  units.system === 'metric'
    ? `${v.toFixed(2)} kg/m²/h`
    : `${((v * 0.3048 * 0.3048) / 0.45359237).toFixed(2)} lb/ft²/h`
/** A moment in newton metres, a force in newtons, a pressure in pascals. */
export const torque = (nm: number, units: Units) =>
  units.system === 'metric'
    ? `${figures(nm)} N m`
    : msg.tape_lbf_ft({ v1: figures(nm / (POUND_FORCE * 0.3048)) })
export const force = (n: number, units: Units) =>
  units.system === 'metric' ? `${figures(n)} N` : `${figures(n / POUND_FORCE)} lbf`
export const pressure = (pa: number, units: Units) =>
  units.system === 'metric'
    ? `${figures(pa / 1000)} kPa`
    : `${figures((pa * 0.3048 * 0.3048) / POUND_FORCE)} psf`

export const number = (n: number) => (Number.isInteger(n) ? String(n) : n.toFixed(2))

/** Where numbers and ticks stand on a ruler, in the unit they belong to, finest first. */
const RULERS = {
  imperial: [
    [0.25, 1 / 24],
    [0.5, 1 / 12],
    [1, 0.25],
    [2, 0.5],
    [5, 1],
    [10, 2],
    [20, 5],
    [50, 10],
    [100, 20],
    [200, 50],
    [500, 100],
    [1000, 200],
    [5000, 1000],
    [20000, 5000],
  ],
  metric: [
    [0.1, 0.01],
    [0.2, 0.05],
    [0.5, 0.1],
    [1, 0.2],
    [2, 0.5],
    [5, 1],
    [10, 2],
    [20, 5],
    [50, 10],
    [100, 20],
    [200, 50],
    [500, 100],
    [1000, 200],
    [5000, 1000],
  ],
}

export interface RulerScale {
  /** Millimetres from tick to tick. */
  tick: number
  /** Ticks from number to number. */
  every: number
}

/** The finest ruler whose numbers stand far enough apart to read. */
export function rulerScale(pixelsPerMm: number, units: Units): RulerScale {
  const unit = units.system === 'metric' ? 1000 : FOOT
  const table = RULERS[units.system]
  const [label, tick] = table.find(([l]) => l! * unit * pixelsPerMm >= 60) ?? table[table.length - 1]!
  return { tick: tick! * unit, every: Math.round(label! / tick!) }
}

/** A number on the ruler. */
export function rulerLabel(mm: number, units: Units): string {
  if (units.system === 'metric') return `${+(mm / 1000).toFixed(2)} m`
  const inches = Math.round(mm / INCH)
  const [feet, rest] = [Math.floor(inches / 12), inches % 12]
  return rest ? `${feet}′ ${rest}″` : `${feet}′`
}

/** A system's common tape. */
export const usualUnits = (system: Units['system']): Units => ({
  system,
  smallestMark: system === 'metric' ? 1 : INCH / 16,
})

/** A wind of so many metres per second, as it is said. */
export const wind = (v: number, units: Units) =>
  `${(v * perHour(units).per).toFixed(0)} ${perHour(units).name}`

/** Hours of work, to the quarter. */
export const hours = (h: number) => {
  const quarters = Math.round(h * 4) / 4
  return h > 0 && quarters === 0 ? 'under ¼ h' : `${quarters} h`
}

/** How wind is said: the unit, and how many of it are one metre per second. */
export const perHour = (units: Units) =>
  units.system === 'metric' ? { name: msg.common_km_h, per: 3.6 } : { name: 'mph', per: 3600 / 1609.344 }
