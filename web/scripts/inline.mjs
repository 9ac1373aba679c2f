// Puts messages of words alone in where they are used, before anything is
// compiled: a label costs what it cost when it stood there. Of those that take
// values each file gets its own, so that a bench loads no other bench's words.
// Words of two spellings, src/gen/spelling.json, are put in twice: the job says
// which is read.
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const NAME = '\0messages/'

const british = JSON.parse(readFileSync(new URL('../src/gen/spelling.json', import.meta.url), 'utf8'))
const SPELLING = `import { spelling as ofJob } from ${JSON.stringify(fileURLToPath(new URL('../src/lib/spelling.svelte.ts', import.meta.url)))}`

/** The words as they are spelled in Britain. */
function inBritain(text) {
  return text.replace(/[A-Za-z]+('s)?/g, (word) => {
    const other = british[word.toLowerCase()]
    if (!other) return word
    return /^[A-Z]/.test(word) ? other[0].toUpperCase() + other.slice(1) : other
  })
}
/** Code for words: a text, or a choice between its two spellings. */
function spelled(text, literal) {
  const other = inBritain(text)
  return other === text ? literal(text) : `(ofJob.british ? ${literal(other)} : ${literal(text)})`
}

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
      for (const [i, line] of code.entries())
        code[i] = line.replace(/"(?:[^"\\]|\\.)*"/g, (text) => spelled(JSON.parse(text), JSON.stringify))
      const needed = imports.filter((line) => {
        const name = /\{ (\w+) \}/.exec(line)[1]
        return code.some((c) => new RegExp(`\\b${name}\\b`).test(c))
      })
      if (code.some((line) => line.includes('ofJob.british'))) needed.push(SPELLING)
      return [...needed, ...code].join('\n')
    },
    transform(code, id) {
      if (!/\.(svelte|ts)$/.test(id) || !code.includes('/gen/messages')) return null
      const used = new Set()
      const said = code.replace(/\bmsg\.(\w+)\b/g, (all, key) => {
        if (constants.has(key)) return spelled(constants.get(key), literal)
        used.add(key)
        return all
      })
      const from = /import \* as msg from '[^']*gen\/messages'/
      const names = [...used].sort().join('+')
      const imports = [
        names && `import * as msg from 'messages/${names}'`,
        said.includes('ofJob.british') && SPELLING,
      ]
      return { code: said.replace(from, imports.filter(Boolean).join('\n')), map: null }
    },
  }
}
