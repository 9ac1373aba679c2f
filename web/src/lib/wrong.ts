// What is wrong with an entry, and what to type instead.
import type { FieldError } from '../gen/api'

export const wrongSays = (e: FieldError, name = 'This') =>
  e.given === 'nothing'
    ? `${name} is missing: it must be ${e.allowed}.`
    : `${name} was ${e.given}. It must be ${e.allowed}.`
