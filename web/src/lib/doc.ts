// Editing the job document as plain JSON, so that fields which Mallow does
// not know stay as they are.
import type { Job } from '../gen/api'

export interface Change {
  path: string
  /** null takes the field away */
  value: unknown
}

type Node = Record<string, unknown> | unknown[]

const steps = (path: string) => path.replace(/^\//, '').split('/')

export function read(doc: unknown, path: string): unknown {
  return steps(path).reduce<unknown>((node, key) => (node as Record<string, unknown> | undefined)?.[key], doc)
}

/** Returns a copy of the document with the changes made. */
export function change(doc: Job, changes: Change[]): Job {
  const copy = structuredClone(doc) as unknown as Node
  for (const c of changes) {
    const keys = steps(c.path)
    const last = keys.pop()!
    let node = copy as Record<string, unknown>
    keys.forEach((key, i) => {
      node = (node[key] ??= (keys[i + 1] ?? last) === '-' ? [] : {}) as Record<string, unknown>
    })
    if (last === '-' && Array.isArray(node)) node.push(c.value)
    else if (c.value === null && !Array.isArray(node)) delete node[last]
    else node[last] = c.value
  }
  return copy as unknown as Job
}
