// Times of the site, which come with its own offset: shown as its clocks show them,
// whatever the clock of this device says.
const DAY = 86_400_000

/** Milliseconds of the site's own clock, so that two times can be told apart on it. */
export const wall = (at: string) => Date.parse(`${at.slice(0, 19)}Z`)

/** 07:30 */
export const clock = (at: string | undefined) => (at ? at.slice(11, 16) : '')

/** Mon 3 May */
export const date = (at: string) =>
  new Date(`${at.slice(0, 10)}T12:00:00Z`).toLocaleDateString(undefined, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    timeZone: 'UTC',
  })

/** 07:30, with the day where it is another one. */
export const when = (at: string | undefined, day: string | undefined) =>
  !at ? '' : at.slice(0, 10) === day ? clock(at) : `${date(at)}, ${clock(at)}`

/** The day after so many days, year-month-day. */
export const after = (day: string, days: number) =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10)
