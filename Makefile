# Tamiz. `make help` tells what there is.
SHELL := /bin/bash
.DEFAULT_GOAL := help
GO ?= go
BIN := bin/tamiz
SUDO := $(shell [ "$$(id -u)" = 0 ] || echo sudo)
WEB := $(shell find web/src web/public web/index.html web/vite.config.ts web/tsconfig.json -type f 2>/dev/null)
GOFILES := $(shell find . -name '*.go' -not -path './node_modules/*' -not -path './web/node_modules/*' 2>/dev/null) $(shell find core demo store -type f -not -name '*.go')

.PHONY: help demo test test-crash bench dev fmt lint build contract tools packages check-contract clean

help: ## tell what there is
	@grep -hE '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | awk -F ':.*## ' '{ printf "  make %-10s %s\n", $$1, $$2 }'

demo: build ## start everything with the demo review and print the address
	@exec $(BIN) demo --dir .run/demo

test: tools build check-contract ## pass all tests: contract, types, style, Go, and the browser
	@scripts/test

test-crash: packages ## kill two programs on one database 200 times: nothing is lost, and nothing stands still
	@TAMIZ_KILLS=200 $(GO) test -count=1 -timeout 30m -run TestNothingIsStrandedByKills -v ./cmd/tamiz

bench: packages ## print the speeds, each as a ratio within one run
	@scripts/bench

dev: build web/node_modules/.ready ## run with the front end reloading as it is edited
	@scripts/dev

build: $(BIN) ## build the program, the front end inside it

contract: web/node_modules/.ready ## make Go and TypeScript again from api/openapi.yaml
	@cd api && $(GO) generate ./...
	@cd web && npm run --silent contract >/dev/null

fmt: web/node_modules/.ready ## bring the code into its form
	@gofmt -w $$(git ls-files '*.go')
	@cd web && npx eslint --fix . && npm run -s form

lint: build web/node_modules/.ready ## look at the code: go vet, staticcheck, vue-tsc, eslint
	@scripts/lint

clean: ## remove what was built; the databases in .run stay
	rm -rf bin web/node_modules e2e/node_modules
	find web/dist -mindepth 1 -not -name .keep -delete

check-contract: web/node_modules/.ready
	@scripts/check-contract

$(BIN): web/dist/index.html $(GOFILES) go.mod go.sum
	@$(GO) build -o $(BIN) ./cmd/tamiz

web/dist/index.html: web/node_modules/.ready $(WEB)
	@cd web && npx vite build --logLevel warn

web/node_modules/.ready: web/package.json web/package-lock.json | packages
	@cd web && npm ci --no-audit --no-fund --loglevel=error
	@touch $@

e2e/node_modules/.ready: e2e/package.json e2e/package-lock.json | packages
	@cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund --loglevel=error
	@touch $@

tools: e2e/node_modules/.ready
	@SUDO="$(SUDO)" scripts/packages tests

# What Debian has to give to run the program; the versions of Go and Node are looked at first.
packages:
	@SUDO="$(SUDO)" scripts/packages
