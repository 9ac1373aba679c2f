// Packs the core for browsers, once with each of the codings that they take,
// and takes the plain file out of what is shipped.
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants as c, gzipSync } from 'node:zlib'

const assets = new URL('../dist/app/assets/', import.meta.url)
const quality = Number(process.env.CORE_QUALITY ?? 11)
for (const name of readdirSync(assets).filter((n) => n.endsWith('.wasm'))) {
  const file = new URL(name, assets)
  const raw = readFileSync(file)
  const packed = brotliCompressSync(raw, {
    params: {
      [c.BROTLI_PARAM_QUALITY]: quality,
      [c.BROTLI_PARAM_LGWIN]: 24,
      [c.BROTLI_PARAM_SIZE_HINT]: raw.length,
    },
  })
  writeFileSync(new URL(name + '.br', assets), packed)
  writeFileSync(new URL(name + '.gz', assets), gzipSync(raw, { level: 9 }))
  rmSync(file)
  console.log(`${name}: ${raw.length} bytes, brotli ${packed.length}`)
}
