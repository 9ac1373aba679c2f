// What a change costs, in a few words.
import type { Cost, Units } from '../gen/api'
import { small, tape } from './tape'

const signed = (n: number) => (n > 0 ? '+' : '−') + Math.abs(n)
const many = (n: number, one: string) => `${signed(n)} ${one}${Math.abs(n) === 1 ? '' : 's'}`

/** The differences that are not nothing, each a few words; one that says so when all are. */
export function costs(c: Cost, units: Units): string[] {
  const out: string[] = []
  if (c.posts) out.push(many(c.posts, 'post'))
  if (c.cutPieces) out.push(many(c.cutPieces, 'cut piece'))
  if (c.oddBays) out.push(many(c.oddBays, 'odd bay'))
  if (c.bags) out.push(many(c.bags, 'bag'))
  if (Math.abs(c.concrete) > 1e-4)
    out.push(`${c.concrete > 0 ? '+' : '−'}${small(Math.abs(c.concrete), units)} concrete`)
  if (Math.abs(c.stock ?? 0) > 1)
    out.push(`${c.stock! > 0 ? '+' : '−'}${tape(Math.abs(c.stock!), units)} of posts`)
  return out.length ? out : ['the load stays the same']
}
