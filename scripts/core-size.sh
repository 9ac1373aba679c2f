#!/bin/sh
# The core as a browser will load it, against its budget: 1.3 MB, brotli.
set -eu
most=1300000
wasm=$(mktemp)
trap 'rm -f "$wasm"' EXIT
GOOS=js GOARCH=wasm go build -trimpath -ldflags "-s -w" -o "$wasm" ./cmd/wasm
node -e 'const z = require("node:zlib"), b = require("node:fs").readFileSync(process.argv[1]), most = Number(process.argv[2])
const packed = z.brotliCompressSync(b, { params: { [z.constants.BROTLI_PARAM_SIZE_HINT]: b.length } }).length
console.log(`core as WebAssembly: ${b.length} bytes, brotli ${packed}, at most ${most}`)
process.exit(packed > most ? 1 : 0)' "$wasm" "$most"
if [ "${1:-}" = run ]; then "$(go env GOROOT)/lib/wasm/go_js_wasm_exec" "$wasm" demo/jobs/1-tansy-bank.json; fi
