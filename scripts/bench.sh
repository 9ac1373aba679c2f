#!/bin/sh
# Prints the figures: the core and the store by the Go benchmarks, then the
# running binary. Medians; machines are noisy, so read ratios before times.
set -eu
echo "== Core and store"
go test -run '^$' -bench . -benchmem ./core/... ./exchange ./store | grep -E '^Benchmark'
echo "== Running binary"
go run ./cmd/measure -binary ./bin/mallow
echo "== Front end"
for f in web/dist/app/assets/*.js; do
	printf '%s: %s bytes gzipped\n' "${f##*/}" "$(gzip -9 -c "$f" | wc -c)"
done
