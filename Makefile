# Vast Lantern. Two commands do everything: make demo, make test.
export CGO_ENABLED = 0
TAGS = -tags nomsgpack
PACKAGES = . ./cmd/... ./core/... ./deploy/... ./e2e/... ./language/... ./store/... ./studio/... ./web/... # not what npm packages bring along
IN_PROCESS = . ./cmd/... ./core/... ./language/... ./store/... ./studio/... ./web/... # what needs no browser
SEED = 20261126
FRONT = $(shell find ui/src ui/public -type f -not -path 'ui/src/*/go/*') ui/index.html ui/room.html ui/home.html ui/vite.config.ts ui/vite.home.config.ts ui/tsconfig.json ui/controls.json ui/phases.json $(wildcard language/*/*.json) $(wildcard docs/manual/*.md docs/manual/*/*.md)
GO = $(shell find cmd core language studio store web -name '*.go' -o -name '*.yaml' -o -name '*.sql' -o -name '*.json' -o -name '*.txt')

CORE = $(shell find cmd/core core studio/apart studio/contract studio/led -name '*.go' -not -name '*_test.go' -o -name '*.yaml' -o -name '*.txt' -o -name '*.json')

TRYOUT = $(shell find cmd/tryout language studio/rehearsed studio/tryout -name '*.go' -not -name '*_test.go' -o -name '*.json')

.PHONY: demo tryout build release test quick shuffled steady times check types licences format bench bench-check load scale listen measure kinds trial engines race fuzz readers pictures chromium clean

demo: build ## build, and start the application with invented demo data
	bin/lantern demo

build: bin/lantern ## the front end and the one program bin/lantern

bin/lantern: web/dist/index.html $(GO) go.mod go.sum
	go build $(TAGS) -o $@ ./cmd/lantern

web/dist/index.html: ui/node_modules/.package-lock.json $(FRONT) ui/src/apart/go/core.wasm
	cd ui && npm run --silent build
	touch $@

ui/src/apart/go/core.wasm: $(CORE) go.mod go.sum ## the core as a lead screen runs it
	mkdir -p $(@D)
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $(@D)/
	GOOS=js GOARCH=wasm go build $(TAGS) -trimpath -ldflags '-s -w' -o $@ ./cmd/core

ui/node_modules/.package-lock.json: ui/package.json ui/package-lock.json
	cd ui && npm ci --no-audit --no-fund
	touch $@

tryout: bin/tryout/index.html ## the rehearsal and a sample class as one page in bin/tryout, which needs no server

bin/tryout/index.html: web/dist/index.html ui/src/tryout/go/tryout.wasm.gz ui/tryout.html ui/vite.tryout.config.ts
	cd ui && npx vite build -c vite.tryout.config.ts --logLevel warn
	mv bin/tryout/tryout.html $@

ui/src/tryout/go/tryout.wasm.gz: $(CORE) $(TRYOUT) go.mod go.sum
	mkdir -p $(@D)
	GOOS=js GOARCH=wasm go build $(TAGS) -trimpath -ldflags '-s -w' -o $(@D)/tryout.wasm ./cmd/tryout
	gzip -9 -n -c $(@D)/tryout.wasm > $@
	rm $(@D)/tryout.wasm

VERSION = 0.1.0

release: build ## archives for Linux, macOS and Windows in bin/release, with their checksums
	go run ./deploy/release $(VERSION) bin/release

test: build tryout check chromium ## everything that is tested, in the browser too
	go test $(TAGS) -timeout 30m $(PACKAGES)
	$(MAKE) readers

quick: build ## the everyday loop, without a browser: what a change can break most easily, in less than a minute
	go vet $(TAGS) $(IN_PROCESS)
	go test $(TAGS) -short $(IN_PROCESS)
	cd ui && npx tsc --noEmit && npm run --silent test

shuffled: ## what needs no browser once more, twice, in an order of its own: no test may need another one before it
	go test $(TAGS) -shuffle $(SEED) -count 2 $(IN_PROCESS)

steady: build tryout chromium ## the browser tests ten times, five of them beside two busy processes, and a table of what failed: an hour
	go run $(TAGS) ./e2e/steady

times: build tryout chromium ## where the time of the tests goes, as the table of CONTRIBUTING.md
	@go test $(TAGS) -json -count 1 -timeout 30m $(PACKAGES) | go run ./e2e/times

check: build ## vet, linters, types, formatting, generated types up to date
	go mod tidy -diff
	go vet $(TAGS) $(PACKAGES)
	GOOS=js GOARCH=wasm go vet $(TAGS) ./cmd/core ./cmd/tryout
	@test -z "$$(gofmt -l *.go cmd core deploy e2e language store studio web)" || { gofmt -l *.go cmd core deploy e2e language store studio web; echo "run: make format"; exit 1; }
	go run honnef.co/go/tools/cmd/staticcheck@v0.8.2 $(TAGS) $(PACKAGES)
	cd ui && npm run --silent check && npm run --silent test
	cd ui && npx json2ts contract.schema.json --no-additionalProperties | cmp - src/wire/contract.ts || { echo "run: make types"; exit 1; }
	go run ./web/licences bin/lantern ui | cmp - ui/src/help/licences.txt || { echo "run: make licences"; exit 1; }

licences: build ## of everything that ships inside the program, as Help shows them
	go run ./web/licences bin/lantern ui > bin/licences.txt && mv bin/licences.txt ui/src/help/licences.txt

types: ## the TypeScript of the contract and the schemas of the files, from the Go structs
	go run ./studio/contract/gen
	cd ui && npm run --silent types

format:
	gofmt -w *.go cmd core deploy e2e language store studio web
	cd ui && npm run --silent format

bench: build ## the table of docs/performance.md: three minutes to a quarter of an hour
	go run ./e2e/bench

bench-check: build ## fails where something has become slower, beside what it is compared with
	go run ./e2e/bench -check

trial: build ## 1,000 kills, 100,000 hostile requests and a class of three hours before 2,000 screens: ten minutes; then other engines
	go run $(TAGS) ./e2e/trial
	$(MAKE) engines

engines: build tryout ## a class in WebKit and in Firefox, at a tablet's size and a phone's, with sound: two minutes
	@{ command -v WebKitWebDriver && command -v firefox-esr && command -v Xvfb && command -v pulseaudio; } >/dev/null || { apt-get update && apt-get install -y --no-install-recommends webkit2gtk-driver firefox-esr xvfb pulseaudio; }
	go run $(TAGS) ./e2e/engines

race: ## the race detector over what runs at the same time; it needs a C compiler
	CGO_ENABLED=1 go test $(TAGS) -race ./store ./studio/... ./web

load: build ## many room screens: how long a change takes to arrive, beside a server that only broadcasts
	for screens in 500 2000; do go run $(TAGS) ./e2e/load --screens $$screens || exit 1; done
	for screens in 500 2000; do go run $(TAGS) ./e2e/load --hand --screens $$screens || exit 1; done

scale: build chromium ## 5,000 screens, and 5,000 behind the reverse proxy of deploy/nginx.conf
	go run $(TAGS) ./e2e/load --screens 5000 --proxy

kinds: build chromium ## every kind of class, led to its end by the keyboard and by one pedal: a quarter of an hour
	go run $(TAGS) ./e2e/kinds

listen: ui/node_modules/.package-lock.json ## what is heard in many made sounds, as the tables of docs/listening.md: a quarter of an hour
	@{ command -v espeak-ng && command -v sox; } >/dev/null || { apt-get update && apt-get install -y --no-install-recommends espeak-ng sox; }
	ui/src/ear/sounds/speech.sh ui/src/ear/sounds/speech
	cd ui && VITE_LISTEN=whole npx vitest run src/ear/ear.test.ts

measure: build chromium ## how true the counts are that screens show, in real time: two minutes
	go run $(TAGS) ./e2e/measure

# Each reader of what people write, and the promises of the core. FUZZ is how much each reader is tried: a number of inputs (x),
# since a time can be over on a slow machine before the first of them.
FUZZ = 2000x
READERS = ./studio:FuzzReadWave ./core/practice:FuzzRead ./core/sheet:FuzzReadPlan ./core/sheet:FuzzReadScript ./core/plan/line:FuzzLine

readers:
	for reader in $(READERS); do go test $(TAGS) $${reader%:*} -run '^$$' -fuzz "^$${reader#*:}\$$" -fuzztime $(FUZZ) -fuzzminimizetime 100x || exit 1; done

fuzz: ## the same for longer: ten minutes a reader, then 100,000 random classes
	$(MAKE) readers FUZZ=10m
	go test $(TAGS) ./core/pace -timeout 60m -run Promises -rapid.checks=100000

pictures: build chromium ## docs/screenshots, from the demo data
	go run $(TAGS) ./e2e/pictures

chromium: # without its windows, which take half of its time, and the reverse proxy that a test starts
	@{ command -v chromium-headless-shell && command -v nginx && test -e /usr/lib/nginx/modules/ngx_nchan_module.so; } >/dev/null || { apt-get update && apt-get install -y --no-install-recommends chromium-headless-shell nginx libnginx-mod-nchan; }

clean:
	rm -rf bin data ui/node_modules web/dist/assets web/dist/index.html
