#!/bin/sh
# Prints the figures: the core and the store by the Go benchmarks, then the
# running binary, the front end, and the core as WebAssembly. Medians; machines
# are noisy, so read ratios before times.
set -eu
echo "== Core and store"
go test -run '^$' -bench . -benchmem ./core/... ./exchange ./store | grep -E '^Benchmark'
echo "== Running binary"
go run ./cmd/measure -binary ./bin/mallow
echo "== Answers, against their budgets"
go test -count 1 -run TestAnswerBudgets -v ./server | grep bytes
echo "== Front end, against its budgets"
(cd web && node scripts/budget.mjs)
printf 'all scripts: %s bytes gzipped\n' "$(cat web/dist/app/assets/*.js | gzip -9 | wc -c)"
echo "== A gate dragged in the browser"
(cd e2e && node drag.mjs)
echo "== Core as WebAssembly"
sh scripts/core-size.sh
node scripts/core-time.mjs
