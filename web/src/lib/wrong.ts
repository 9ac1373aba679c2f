// What is wrong with an entry, and what to type instead.
import type { FieldError } from '../gen/api'
import * as msg from '../gen/messages'

export const wrongSays = (e: FieldError, name = msg.wrong_this) =>
  e.given === 'nothing'
    ? msg.wrong_is_missing_it_must_be({ name, allowed: e.allowed })
    : msg.wrong_was_it_must_be({ name, given: e.given, allowed: e.allowed })
