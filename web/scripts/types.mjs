// Writes src/gen/api.ts from the schema that the Go types give; with --check
// it fails when the file has drifted.
import { readFileSync, writeFileSync } from 'node:fs'
import { compile } from 'json-schema-to-typescript'

const out = new URL('../src/gen/api.ts', import.meta.url)
const schema = JSON.parse(readFileSync(new URL('../src/gen/api.schema.json', import.meta.url), 'utf8'))
/** A description beside a reference would make the type again: the type says what it is. */
function bare(node) {
  if (node === null || typeof node !== 'object') return
  if (node.$ref) delete node.description
  Object.values(node).forEach(bare)
}
bare(schema)
const text = await compile(schema, 'API', {
  additionalProperties: false,
  bannerComment: '/* Written by make generate from the Go types. Do not edit. */',
  ignoreMinAndMaxItems: true,
  style: { semi: false, singleQuote: true, printWidth: 100 },
})
if (process.argv.includes('--check')) {
  if (readFileSync(out, 'utf8') !== text) {
    console.error('web/src/gen/api.ts is not what the Go types say: run make generate')
    process.exit(1)
  }
} else {
  writeFileSync(out, text)
}
