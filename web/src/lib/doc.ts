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
  'lines runs ground gates keepOuts fixedPosts heldBays kinds overrides parts in out books rows systems observed laid'.split(
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

/** Returns a copy of the document with the changes made. */
export function change(doc: Job, changes: Change[]): Job {
  const copy = structuredClone(doc) as unknown as Named
  for (const c of changes) {
    const path = names(c.path)
    const value = structuredClone(c.value)
    nameIn(path.at(-1)!, value)
    put(copy, path, { ...c, value })
  }
  return copy as unknown as Job
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

function put(node: Named, [name, ...rest]: string[], c: Change) {
  if (!rest.length) {
    if (c.value === null) delete node[name!]
    else node[name!] = c.value
    return
  }
  if (node[name!] === undefined && c.value === null) return
  const child = (node[name!] ??= lists.has(name!) ? [] : {})
  if (Array.isArray(child)) node[name!] = putEntry(name!, child, rest, c)
  else if (typeof child === 'object') put(child as Named, rest, c)
  else throw new Error(`edit of ${c.path}: nothing to go into at ${rest[0]}`)
}

function putEntry(list: string, entries: unknown[], [id, ...rest]: string[], c: Change): unknown[] {
  if (!lists.has(list)) throw new Error(`edit of ${c.path}: a list of plain values is set as one`)
  const i = entries.findIndex((e) => keyOf(e) === id)
  if (!rest.length) {
    if (c.value === null) return entries.filter((_, k) => k !== i)
    if (i >= 0) return entries.map((e, k) => (k === i ? c.value : e))
    if (keyOf(c.value) !== id) throw new Error(`edit of ${c.path}: a new entry has the id ${id}`)
    return [...entries, c.value]
  }
  let entry = entries[i] as Named | undefined
  if (!entry && list === 'kinds') entries = [...entries, (entry = { kind: id })]
  if (!entry) throw new Error(`edit of ${c.path}: no entry ${id}`)
  put(entry, rest, c)
  return entries
}

/** An id that no other entry has: a letter and a number. */
export function newID(entries: { id?: string }[], letter: string): string {
  let n = entries.length + 1
  while (entries.some((e) => e.id === letter + n)) n++
  return letter + n
}
