// A bill as it is read: its items under their headings, a line for each way to
// buy one.
import type { Buy, Item } from '../gen/api'

export interface Line {
  item: Item
  buy: Buy
  /** Another way to buy the item of the line before. */
  or: boolean
}

/** Figures of the totals that have reasons of their own. */
const explained = ['concrete', 'gravel', 'hours', 'spoil'] as const

/** The figure that explains an item; nothing where none does. */
export const whyOf = (item: Item) => explained.find((w) => w === item.why)

export interface Group {
  name: string
  lines: Line[]
}

export const lines = (items: Item[]): Line[] =>
  items.flatMap((item) => item.bought.map((buy, i) => ({ item, buy, or: i > 0 })))

export function groups(items: Item[]): Group[] {
  const out: Group[] = []
  for (const line of lines(items)) {
    const last = out.at(-1)
    if (last?.name === line.item.group) last.lines.push(line)
    else out.push({ name: line.item.group, lines: [line] })
  }
  return out
}
