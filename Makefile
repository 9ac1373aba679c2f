# make demo   start Mallow with the demo jobs
# make test   everything that CI checks
# make bench  the figures
.PHONY: core-size torture torture-cut demo serve build test test-full quick go-lint go-test go-full e2e-check web-check e2e generate generate-check fmt bench screenshots fuzz chromium poppler clean

VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo development)
CHROMIUM ?= /usr/bin/chromium
export PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD = 1
export MALLOW_CHROMIUM = $(CHROMIUM)

demo: build
	./bin/mallow demo

serve: build
	./bin/mallow serve

build: bin/mallow

GO_FILES := $(shell find . -name '*.go' -not -path './web/node_modules/*' -not -path './e2e/node_modules/*') go.mod go.sum
DATA := $(wildcard catalog/data/*.json demo/jobs/*.json store/migrations/*.sql)
WEB := $(shell find web/src web/public -type f) web/index.html web/vite.config.js web/package-lock.json

bin/mallow: $(GO_FILES) $(DATA) web/dist/app/index.html
	go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/mallow

# The core for browsers. Calls are not unfolded where they stand: that is a
# tenth of its size, and no slower there.
CORE_FILES := $(filter-out %_test.go,$(filter ./core/% ./catalog/% ./cmd/core/%,$(GO_FILES)))
web/core/core.wasm: $(CORE_FILES) go.mod core/words/en.json $(wildcard catalog/data/*.json)
	mkdir -p web/core
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" web/core/
	GOOS=js GOARCH=wasm go build -trimpath -gcflags=mallow/...=-l -ldflags "-s -w" -o $@ ./cmd/core

web/dist/app/index.html: web/node_modules $(WEB) web/core/core.wasm
	cd web && npm run build && node scripts/core.mjs
	@touch $@

web/node_modules: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

e2e/node_modules: e2e/package-lock.json
	cd e2e && npm ci --no-audit --no-fund
	@touch $@

# What is derived from the Go types.
generate: web/node_modules
	go run ./cmd/generate
	cd web && node scripts/types.mjs && node scripts/messages.mjs

generate-check: web/node_modules
	go run ./cmd/generate -check
	cd web && node scripts/types.mjs --check && node scripts/messages.mjs --check

fmt:
	gofmt -w $$(git ls-files '*.go')
	cd web && npm run format

test: go-test core-size web-check e2e-check e2e torture-cut
	@echo "All checks passed."

# The same with every property tried in full and races looked for everywhere.
test-full: export MALLOW_FULL = 1
test-full: go-lint go-full core-size web-check e2e-check e2e torture-cut
	@echo "All checks passed, in full."

# Under a minute: what breaks most often.
quick:
	go vet ./core/... ./server ./store ./exchange ./files ./paper ./cmd/...
	go test -short ./core/length ./core/words ./core/job ./core/document ./core/choice ./core/footing ./core/spacing ./core/gate ./core/qp ./core/survey ./core/stringline ./core/pour ./core/reason ./catalog ./store
	go test -short -run 'Worked|ByHand|Case|Raked|Near|Thresholds|Judgement|Landed|Materials|Totals' ./core/plan

go-lint:
	@test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { echo "run make fmt on:"; gofmt -l $$(git ls-files '*.go'); exit 1; }
	go vet ./...
	GOOS=js GOARCH=wasm go vet ./cmd/core
	go tool staticcheck ./...

# Races are looked for where there are goroutines.
CONCURRENT := ./server ./store ./replica ./standin ./cmd/mallow

go-test: go-lint
	go test -short -timeout 30m $$(go list ./... | grep -vE '/(server|store|replica|standin|cmd/mallow)$$')
	go test -short -race -timeout 30m $(CONCURRENT)

go-full:
	go test -race -timeout 60m ./...

# How heavy the scripts may be is a budget.
web-check: generate-check web/dist/app/index.html
	cd web && npm run check && npm run lint && node scripts/budget.mjs

e2e-check: e2e/node_modules
	cd e2e && npm run check && npm run lint

e2e: bin/mallow e2e/node_modules chromium poppler
	cd e2e && node geodesics.mjs --check && npx playwright test

# The tests drive Debian's Chromium; without root it cannot be installed here.
chromium:
	@test -x "$(CHROMIUM)" || sh scripts/chromium.sh "$(CHROMIUM)"

# They read what is printed with Debian's poppler tools.
poppler:
	@command -v pdftotext >/dev/null || sh scripts/poppler.sh

screenshots: bin/mallow e2e/node_modules chromium
	cd e2e && node screenshots.mjs

# Tries to bring the binary down and to make it lose what it saved. How long:
# make torture FOR=1h; some of it: ONLY="kills,stops".
FOR ?= 10m
ONLY ?=
torture: bin/mallow
	go run ./cmd/torture -binary bin/mallow -for $(FOR) -only "$(ONLY)"

core-size: web/dist/app/index.html
	sh scripts/core-size.sh

torture-cut: bin/mallow
	go run ./cmd/torture -binary bin/mallow -for 2m

bench: bin/mallow
	sh scripts/bench.sh

fuzz:
	go test -fuzz FuzzParse -fuzztime 30s -fuzzminimizetime 10x ./core/length
	go test -fuzz FuzzDecode -fuzztime 30s -fuzzminimizetime 10x ./core/document
	go test -fuzz FuzzMigrate -fuzztime 30s -fuzzminimizetime 10x ./core/document
	go test -fuzz FuzzPlan -fuzztime 30s -fuzzminimizetime 10x ./core/plan
	go test -fuzz FuzzApply -fuzztime 30s -fuzzminimizetime 10x ./core/reshape
	go test -fuzz FuzzCSV -fuzztime 30s -fuzzminimizetime 10x ./exchange
	go test -fuzz FuzzGPX -fuzztime 30s -fuzzminimizetime 10x ./exchange
	go test -fuzz FuzzGeoJSON -fuzztime 30s -fuzzminimizetime 10x ./exchange

clean:
	rm -rf bin web/dist/app web/node_modules e2e/node_modules e2e/results
