// Compiles messages/en.json, all that the screen says, to src/gen/messages.ts:
// a constant for each message of words alone, a function for each that takes
// values. Written in the ICU message syntax, as the core's own catalogue is.
// With --check it fails when the file has drifted.
import MessageFormat from '@messageformat/core'
import compileModule from '@messageformat/core/compile-module.js'
import { parse } from '@messageformat/parser'
import { parse as parseSvelte } from 'svelte/compiler'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'

const messages = JSON.parse(readFileSync(new URL('../messages/en.json', import.meta.url), 'utf8'))
const out = new URL('../src/gen/messages.ts', import.meta.url)

/** The values that a message takes, with what they may be. */
export function values(tokens, into = new Map()) {
  for (const t of tokens) {
    if (t.type === 'plural' || t.type === 'selectordinal') into.set(t.arg, 'number')
    else if (t.arg && !into.has(t.arg)) into.set(t.arg, t.type === 'select' ? 'string' : 'string | number')
    for (const c of t.cases ?? []) values(c.tokens, into)
  }
  return into
}

const constants = {}
const functions = {}
for (const [key, text] of Object.entries(messages)) {
  const tokens = parse(text)
  if (tokens.every((t) => t.type === 'content')) constants[key] = tokens.map((t) => t.value).join('')
  else functions[key] = text
}
const compiled = compileModule(new MessageFormat('en'), functions)
const lines = ['/* Compiled by make generate from messages/en.json. Do not edit. */']
for (const line of compiled.split('\n')) {
  const entry = /^ {2}(\w+): (?:\(d\)|d|function\s*\(d\)) => (.*?),?$/.exec(line)
  if (line.startsWith('import')) lines.push(line)
  else if (entry) {
    const types = [...values(parse(functions[entry[1]]))].map(([name, type]) => `${name}: ${type}`)
    // A number before a number would be added up, and a choice is of no type.
    const body = /^(d\.|plural\(|select\()/.test(entry[2]) ? `'' + ${entry[2]}` : entry[2]
    lines.push(`export const ${entry[1]} = (d: { ${types.join('; ')} }): string => ${body}`)
  } else if (!/^(export default \{|\}|)$/.test(line.trim())) throw new Error(`messages: cannot read ${line}`)
}
for (const [key, text] of Object.entries(constants))
  lines.push(`export const ${key} = ${JSON.stringify(text)}`)
const code = lines.join('\n') + '\n'

// What is said by nobody, and words that stand in the markup.
const used = new Set()
const loose = []
const said = /^(aria-label|label|hint|placeholder|title|alt|caption|aria-valuetext)$/
function markup(node, file) {
  if (!node || typeof node !== 'object') return
  if (Array.isArray(node)) return node.forEach((n) => markup(n, file))
  if (node.type === 'StyleDirective') return
  if (node.type === 'Attribute' && !(said.test(node.name) && Array.isArray(node.value))) return
  if (node.type === 'Text' && /[A-Za-z]{2}/.test(node.data)) loose.push(`${file}: ${node.data.trim()}`)
  for (const [key, value] of Object.entries(node))
    if (key !== 'parent' && key !== 'expression') markup(value, file)
}
// A label that a script writes out: name: 'left'.
const written = /\b(?:name|says|label|hint|title|caption): (['`])((?:(?!\1).)*[A-Za-z]{3}(?:(?!\1).)*)\1/g
const bare = (text) => text.replace(/\$\{[^}]*\}/g, '')
/** Units are the same in every language. */
const isUnit = (text) => text === 'mph'
const src = new URL('../src/', import.meta.url)
for (const file of readdirSync(src, { recursive: true })) {
  if (!/\.(svelte|ts)$/.test(file) || file.startsWith('gen/')) continue
  const text = readFileSync(new URL(file, src), 'utf8')
  for (const [, key] of text.matchAll(/\bmsg\.(\w+)/g)) used.add(key)
  for (const [, , words] of text.matchAll(written))
    if (/[A-Za-z]{3}/.test(bare(words)) && !isUnit(words)) loose.push(`${file}: ${words}`)
  if (file.endsWith('.svelte')) markup(parseSvelte(text, { modern: true }).fragment, file)
}
const unsaid = Object.keys(messages).filter((key) => !used.has(key))
if (unsaid.length) throw new Error(`messages that nobody says: ${unsaid.join(', ')}`)
if (loose.length)
  throw new Error(`words outside the catalogue; they belong in messages/en.json:\n${loose.join('\n')}`)

if (process.argv.includes('--check')) {
  if (readFileSync(out, 'utf8') !== code) {
    console.error('web/src/gen/messages.ts is not what messages/en.json says: run make generate')
    process.exit(1)
  }
} else {
  writeFileSync(out, code)
}
