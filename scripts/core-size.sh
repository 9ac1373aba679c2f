#!/bin/sh
# The core as a browser loads it, against its budget: 2.3 MB, brotli (the log needs it: at a hole there is no signal).
set -eu
most=2300000
for file in web/dist/app/assets/*.wasm.br; do
	size=$(wc -c < "$file")
	echo "core as WebAssembly: brotli $size bytes, at most $most"
	[ "$size" -le "$most" ]
done
