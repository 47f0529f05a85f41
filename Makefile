# make demo   the product with an invented practice on 127.0.0.1:8080
# make test   everything that must hold
# Both set up what they need; a second run is quick.

ADDRESS ?= 127.0.0.1:8080
AS_ROOT := $(shell [ "$$(id -u)" = 0 ] || echo sudo)
WEB     := $(shell find web/src web/public web/index.html web/o web/vite.config.ts web/vite.owner.config.ts web/compress.js -type f -not -path '*/made/*' -not -name '*.test.ts' 2>/dev/null)
GO      := $(shell find cmd core demo server store web -name '*.go' -o -path 'store/migrations/*' -o -path 'core/*.yaml' -o -path 'core/*.txt')
STATICCHECK := go tool -modfile=tools/go.mod staticcheck

.PHONY: demo build test format lint types unit fuzz browser bench soak mutate golden landed generate screenshots films chromium clean

demo: build
	bin/ivorybridge demo --address $(ADDRESS) --log-level warn $(if $(FRESH),--fresh)

build: bin/ivorybridge

bin/ivorybridge: web/dist/index.html $(GO) go.mod go.sum
	go build -trimpath -ldflags='-s -w' -o $@ ./cmd/ivorybridge

web/node_modules/.package-lock.json: web/package.json web/package-lock.json
	cd web && npm ci --prefer-offline --no-audit --no-fund
	@touch $@

# The rules of the arena, built for the browser, with the toolchain's own loader.
RULES := web/src/rules/made
$(RULES)/core.wasm: $(GO) go.mod go.sum
	@mkdir -p $(RULES)
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $(RULES)/
	GOOS=js GOARCH=wasm go build -trimpath -ldflags='-s -w' -o $@ ./cmd/corewasm

web/dist/index.html: web/node_modules/.package-lock.json $(RULES)/core.wasm $(WEB)
	@find web/dist -mindepth 1 ! -name .keep -delete
	cd web && npx --no-install vite build --logLevel warn && npx --no-install vite build -c vite.owner.config.ts --logLevel warn && node compress.js
	@touch $@

test: format lint types unit fuzz browser
	@echo "all: passed"

format: web/node_modules/.package-lock.json
	@bad=$$(git ls-files '*.fail'); [ -z "$$bad" ] || { echo "a failure of a property test is committed; make it a named test: $$bad"; exit 1; }
	@bad=$$(gofmt -l cmd core demo docs/*.go e2e server store tools web/*.go); [ -z "$$bad" ] || { echo "not formatted: $$bad"; exit 1; }
	cd web && npx --no-install prettier --check --log-level warn .

lint: web/dist/index.html
	go vet ./...
	$(STATICCHECK) ./...
	cd web && npx --no-install eslint --max-warnings 0 .

types: web/dist/index.html bin/ivorybridge
	cd store && go tool -modfile=../tools/go.mod sqlc diff
	bin/ivorybridge openapi > bin/openapi.json
	cd web && npx --no-install openapi-typescript ../bin/openapi.json --output ../bin/schema.d.ts >/dev/null
	@cmp -s bin/schema.d.ts web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is behind the server: run make generate"; exit 1; }
	cd web && npx --no-install vue-tsc --noEmit

# Long tests in which nothing happens at once: the race detector would only make
# them longer.
ALONE := FuzzedRequests|LandedSchema|MigratedOn|WhoMayCallWhat|MadeAgainToTheLetter

# The limits are for a machine that is busy with other work.
unit: web/dist/index.html
	cd web && npx --no-install vitest run --silent
	go test -timeout 30m ./cmd/... ./demo/... ./docs/...
	go test -timeout 30m -run '$(ALONE)' ./server ./store
	go test -race -timeout 30m -skip '$(ALONE)' ./core/... ./server/... ./store/...

# Each decoder of what comes from outside is fed with so many made-up texts, or for
# so long.
FUZZ ?= 5000x
fuzz: web/dist/index.html
	@for dir in $$(grep -rl --include='*_test.go' '^func Fuzz' core server | xargs -n 1 dirname | sort -u); do \
		for name in $$(grep -ho '^func Fuzz[A-Za-z]*' $$dir/*_test.go | cut -d' ' -f2); do \
			echo "fuzz $$dir $$name"; out=$$(go test -run '^$$' -fuzz "^$$name\$$" -fuzztime $(FUZZ) -timeout 30m ./$$dir) || { echo "$$out"; exit 1; }; \
		done; \
	done

browser: bin/ivorybridge chromium
	go test -count=1 -parallel 3 -timeout 60m ./e2e/...

chromium:
	@command -v chromium >/dev/null || { $(AS_ROOT) apt-get update -q && $(AS_ROOT) apt-get install -q -y --no-install-recommends chromium; }

bench: web/dist/index.html
	go test -run '^$$' -bench . -benchmem ./core/... ./server/...

# The whole trials of which make test runs short forms: a session of two hours
# far from a signal, a server that is killed two hundred times, and a million
# made-up requests.
soak: bin/ivorybridge chromium
	$(MAKE) fuzz FUZZ=3m
	SOAK=1 go test -count=1 -timeout 60m -v -run 'FarFromASignal|KilledWhileItWrites' ./e2e
	SOAK=1 go test -count=1 -timeout 60m -run FuzzedRequests ./server

# Each number of the rules, changed by one, must make a test fail. MOST bounds it.
MOST ?= 30m
mutate:
	go -C tools build -o ../bin/mutate ./mutate
	bin/mutate -most $(MOST) core/arena core/assess core/plan

# What is made from other files and committed: the typed queries and the
# client's types.
generate: bin/ivorybridge
	cd store && go tool -modfile=../tools/go.mod sqlc generate
	bin/ivorybridge openapi > bin/openapi.json
	cd web && npx --no-install openapi-typescript ../bin/openapi.json --output src/api/schema.d.ts
	bin/ivorybridge rules --describe > docs/rules-keys.md
	bin/ivorybridge ladder-schema > docs/ladder.schema.json

# What the rules say over made-up tracks, once their version has changed.
golden:
	GOLDEN=1 go test -count=1 -run 'WithTheVersion' ./core/arena ./core/history

# A small database of each commit that changed the schema, made from the history.
landed:
	LANDED=1 go test -count=1 -run ADatabaseOfEachLandedSchema ./store

# The demo's clips, drawn anew.
films: web/node_modules/.package-lock.json chromium
	FILMS=$(CURDIR)/demo/films go test -count=1 -run TestDrawFilms ./e2e

screenshots: bin/ivorybridge chromium
	SCREENSHOTS=$(CURDIR)/docs/screenshots go test -count=1 -run TestScreenshots ./e2e

clean:
	rm -rf bin web/node_modules demo-data $(RULES)
	find web/dist -mindepth 1 ! -name .keep -delete
