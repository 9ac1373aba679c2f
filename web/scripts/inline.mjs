// Puts messages of words alone in where they are used, before anything is
// compiled: a label costs what it cost when it stood there. Of those that take
// values each file gets its own, so that a bench loads no other bench's words.
import { readFileSync } from 'node:fs'

const NAME = '\0messages/'

export function inlineMessages() {
  const constants = new Map()
  const functions = new Map()
  const imports = []
  for (const line of readFileSync(new URL('../src/gen/messages.ts', import.meta.url), 'utf8').split('\n')) {
    const words = /^export const (\w+) = (".*")$/.exec(line)
    const takes = /^export const (\w+) = \(d: \{.*?\}\): string => (.*)$/.exec(line)
    if (words) constants.set(words[1], JSON.parse(words[2]))
    else if (takes) functions.set(takes[1], takes[2])
    else if (line.startsWith('import')) imports.push(line)
  }
  const literal = (text) =>
    JSON.stringify(text).replace(/[<>{}`]/g, (c) => '\\u' + c.charCodeAt(0).toString(16).padStart(4, '0'))
  return {
    name: 'inline-messages',
    enforce: 'pre',
    resolveId: (id) => (id.startsWith('messages/') ? NAME + id.slice('messages/'.length) : null),
    load(id) {
      if (!id.startsWith(NAME)) return null
      const keys = id.slice(NAME.length).split('+')
      const code = keys.map((key) => `export const ${key} = (d) => ${functions.get(key)}`)
      const needed = imports.filter((line) => {
        const name = /\{ (\w+) \}/.exec(line)[1]
        return code.some((c) => new RegExp(`\\b${name}\\b`).test(c))
      })
      return [...needed, ...code].join('\n')
    },
    transform(code, id) {
      if (!/\.(svelte|ts)$/.test(id) || !code.includes('/gen/messages')) return null
      const used = new Set()
      const said = code.replace(/\bmsg\.(\w+)\b/g, (all, key) => {
        if (constants.has(key)) return literal(constants.get(key))
        used.add(key)
        return all
      })
      const from = /import \* as msg from '[^']*gen\/messages'/
      const names = [...used].sort().join('+')
      return { code: said.replace(from, names ? `import * as msg from 'messages/${names}'` : ''), map: null }
    },
  }
}
