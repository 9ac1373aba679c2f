#!/bin/sh
# The core as a browser loads it, against its budget: 2.2 MB, brotli.
set -eu
most=2200000
for file in web/dist/app/assets/*.wasm.br; do
	size=$(wc -c < "$file")
	echo "core as WebAssembly: brotli $size bytes, at most $most"
	[ "$size" -le "$most" ]
done
