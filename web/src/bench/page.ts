/** Rows of a long list that are shown at once. */
export const PAGE = 60

/** The rows of a page, each with its place in the whole list. */
export function pageOf<T>(list: T[], page: number): { row: T; i: number }[] {
  const from = Math.min(page, Math.max(0, Math.ceil(list.length / PAGE) - 1)) * PAGE
  return list.slice(from, from + PAGE).map((row, k) => ({ row, i: from + k }))
}
