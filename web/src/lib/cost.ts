// What a change costs, in a few words.
import type { Cost, Units } from '../gen/api'
import { small, tape } from './tape'
import * as msg from '../gen/messages'

const signed = (n: number) => (n > 0 ? '+' : '−') + Math.abs(n)
const many = (n: number, one: string) => `${signed(n)} ${one}${Math.abs(n) === 1 ? '' : 's'}`

/** The differences that are not nothing, each a few words; one that says so when all are. */
export function costs(c: Cost, units: Units): string[] {
  const out: string[] = []
  if (c.posts) out.push(many(c.posts, 'post'))
  if (c.cutPieces) out.push(many(c.cutPieces, msg.cost_cut_piece))
  if (c.oddBays) out.push(many(c.oddBays, msg.cost_odd_bay))
  if (c.bags) out.push(many(c.bags, 'bag'))
  if (Math.abs(c.concrete) > 1e-4)
    out.push(msg.cost_concrete({ v1: c.concrete > 0 ? '+' : '−', v2: small(Math.abs(c.concrete), units) }))
  if (Math.abs(c.stock ?? 0) > 1)
    out.push(msg.cost_of_posts({ v1: c.stock! > 0 ? '+' : '−', v2: tape(Math.abs(c.stock!), units) }))
  return out.length ? out : [msg.cost_the_load_stays_the_same]
}
