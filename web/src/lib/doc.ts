// Editing the job document as plain JSON, so that fields which Mallow does
// not know stay as they are. What a list holds is gone to by its id, never by
// its place. The core edits in the same way: both are held against
// core/document/testdata/edits.json.
import type { Job } from '../gen/api'

export interface Change {
  path: string
  /** null takes the field, or the entry of a list, away */
  value: unknown
}

type Named = Record<string, unknown>

/** The address that names lead to, from another address. */
export const at = (path: string, ...names: string[]) =>
  path + names.map((n) => '/' + n.replaceAll('~', '~0').replaceAll('/', '~1')).join('')

/** The names of an address. */
export const names = (path: string) =>
  path
    .replace(/^\//, '')
    .split('/')
    .map((n) => n.replaceAll('~1', '/').replaceAll('~0', '~'))

/** Fields whose entries have ids, by which an address goes on. */
const lists = new Set(
  'lines runs ground gates keepOuts fixedPosts heldBays kinds overrides parts in out books rows systems observed laid offcuts'.split(
    ' ',
  ),
)
export const isList = (field: string) => lists.has(field)

/** What tells an entry of a list apart: its id, or the kind of post that it is for. */
function keyOf(entry: unknown): string | undefined {
  if (typeof entry !== 'object' || entry === null) return undefined
  const { id, kind } = entry as { id?: unknown; kind?: unknown }
  const key = id === undefined ? kind : id
  return typeof key === 'string' && key !== '' ? key : undefined
}

export function read(doc: unknown, path: string): unknown {
  return names(path).reduce<unknown>(
    (node, name) =>
      Array.isArray(node) ? node.find((e) => keyOf(e) === name) : (node as Named | undefined)?.[name],
    doc,
  )
}

/** Returns the document with the changes made; what they do not touch, both share. */
export function change(doc: Job, changes: Change[]): Job {
  let out = doc as unknown as Named
  for (const c of changes) {
    const path = names(c.path)
    const value = structuredClone(c.value)
    nameIn(path.at(-1)!, value)
    out = put(out, path, { ...c, value })
  }
  return out as unknown as Job
}

/** The edits that make one document another: the fewest that say it by id. */
export function since(from: Job, to: Job): Change[] {
  const out: Change[] = []
  object('', from as unknown as Named, to as unknown as Named, out)
  return out
}

const isObject = (v: unknown): v is Named => typeof v === 'object' && v !== null && !Array.isArray(v)

/** Whether two values are the same JSON. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((v, i) => same(v, b[i]))
  if (!isObject(a) || !isObject(b)) return false
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length && keys.every((k) => k in b && same(a[k], b[k]))
}

function object(path: string, from: Named, to: Named, out: Change[]) {
  for (const name of Object.keys(from)) if (!(name in to)) out.push({ path: at(path, name), value: null })
  for (const [name, now] of Object.entries(to)) {
    const was = from[name]
    const here = at(path, name)
    if (was === now && name in from) continue
    if (isObject(was) && isObject(now)) object(here, was, now, out)
    else if (Array.isArray(was) && Array.isArray(now) && lists.has(name) && name !== 'laid')
      entries(here, was, now, out)
    else if (!(name in from) || !same(was, now)) out.push({ path: here, value: now })
  }
}

/** What makes one list another, entry by entry where their order comes out right. */
function entries(path: string, from: unknown[], to: unknown[], out: Change[]) {
  const was = new Map(from.map((e) => [keyOf(e), e]))
  const now = new Map(to.map((e) => [keyOf(e), e]))
  const byID =
    was.size === from.length && now.size === to.length && !was.has(undefined) && !now.has(undefined)
  const order = [...[...was.keys()].filter((k) => now.has(k)), ...[...now.keys()].filter((k) => !was.has(k))]
  if (!byID || ![...now.keys()].every((k, i) => k === order[i])) {
    if (!same(from, to)) out.push({ path, value: to })
    return
  }
  for (const id of was.keys()) if (!now.has(id)) out.push({ path: at(path, id!), value: null })
  for (const [id, entry] of now) {
    const before = was.get(id)
    if (before === entry) continue
    if (isObject(before) && isObject(entry)) object(at(path, id!), before, entry, out)
    else out.push({ path: at(path, id!), value: entry })
  }
}

/** Lists whose entries may come without ids, and the letter that they are given. */
const letters: Record<string, string> = {
  ground: 'h',
  parts: 'a',
  in: 'n',
  out: 'n',
  rows: 'w',
  observed: 'f',
}

/** Gives ids to the entries of a value that lack them. */
function nameIn(field: string, value: unknown) {
  if (Array.isArray(value)) {
    const letter = letters[field]
    const taken = new Set(value.map((e: { id?: string } | null) => e?.id))
    let n = 0
    for (const e of value as (Named | null)[]) {
      if (typeof e !== 'object' || e === null) return
      if (letter && e['id'] === undefined) {
        do n++
        while (taken.has(letter + n))
        e['id'] = letter + n
      }
      nameIn('', e)
    }
  } else if (typeof value === 'object' && value !== null)
    for (const [name, v] of Object.entries(value)) nameIn(name, v)
}

function put(node: Named, [name, ...rest]: string[], c: Change): Named {
  if (!rest.length) {
    if (c.value !== null) return { ...node, [name!]: c.value }
    const others = { ...node }
    delete others[name!]
    return others
  }
  if (node[name!] === undefined && c.value === null) return node
  const child = node[name!] ?? (lists.has(name!) ? [] : {})
  if (Array.isArray(child)) return { ...node, [name!]: putEntry(name!, child, rest, c) }
  if (typeof child === 'object') return { ...node, [name!]: put(child as Named, rest, c) }
  throw new Error(`edit of ${c.path}: nothing to go into at ${rest[0]}`)
}

function putEntry(list: string, all: unknown[], [id, ...rest]: string[], c: Change): unknown[] {
  if (!lists.has(list)) throw new Error(`edit of ${c.path}: a list of plain values is set as one`)
  const i = all.findIndex((e) => keyOf(e) === id)
  const put1 = (value: unknown) => all.map((e, k) => (k === i ? value : e))
  if (!rest.length) {
    if (c.value === null) return i < 0 ? all : all.filter((_, k) => k !== i)
    if (i >= 0) return put1(c.value)
    if (keyOf(c.value) !== id) throw new Error(`edit of ${c.path}: a new entry has the id ${id}`)
    return [...all, c.value]
  }
  if (i >= 0) return put1(put(all[i] as Named, rest, c))
  if (list === 'kinds') return [...all, put({ kind: id }, rest, c)]
  throw new Error(`edit of ${c.path}: no entry ${id}`)
}

/** An id that no other entry has: a letter and a number. */
export function newID(entries: { id?: string }[], letter: string): string {
  let n = entries.length + 1
  while (entries.some((e) => e.id === letter + n)) n++
  return letter + n
}
