# Green Measure. `make help` lists what there is.
PYTHON ?= python3
PORT ?= 8000
SIMS ?= 8321
VENV := .venv/bin
NPM := $(shell v=$$(npm --version 2>/dev/null | cut -d. -f1); [ "$${v:-0}" -ge 11 ] && echo npm || echo npx --yes npm@11)
SUDO := $(shell [ "$$(id -u)" = 0 ] || echo sudo)
WEB := $(shell find web/src web/public docs/manual docs/screenshots -type f 2>/dev/null) web/index.html web/vite.config.ts web/manual.ts web/package.json web/tsconfig.json
export DJANGO_ALLOW_ASYNC_UNSAFE = true

.PHONY: help setup install build demo serve test test-core test-api test-postgres test-web lint format client shots bench break clean

help: ## List what there is
	@grep -E '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 12

# --- what must be there -------------------------------------------------------------------------------------

.stamps/tools:
	@mkdir -p .stamps
	@command -v $(PYTHON) >/dev/null || { echo "Python 3.11 or newer is missing: apt-get install python3 python3-venv"; exit 1; }
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed; this is $$($(PYTHON) --version)"; exit 1; }
	@command -v node >/dev/null || { echo "Node 20.19 or newer is missing: install Node.js and npm"; exit 1; }
	@node -e 'const [a,b]=process.versions.node.split(".").map(Number); process.exit(a>20||(a===20&&b>=19)?0:1)' || { echo "Node 20.19 or newer is needed; this is $$(node --version)"; exit 1; }
	@touch $@

.stamps/run: requirements.txt | .stamps/tools
	@echo "== Python packages"
	@$(PYTHON) -m venv .venv 2>/dev/null || { echo "== python3-venv by apt"; $(SUDO) apt-get update -qq && $(SUDO) apt-get install -y -qq python3-venv && $(PYTHON) -m venv .venv; }
	@$(VENV)/python -m pip install --quiet --disable-pip-version-check -r requirements.txt
	@touch $@

.stamps/python: pyproject.toml requirements-dev.txt .stamps/run
	@echo "== Python packages for testing"
	@$(VENV)/python -m pip install --quiet --disable-pip-version-check -r requirements-dev.txt
	@touch $@

.stamps/node: web/package.json web/package-lock.json | .stamps/tools
	@echo "== front-end packages"
	@cd web && $(NPM) ci --no-audit --no-fund --loglevel=error
	@touch $@

.stamps/client: web/src/api/openapi.json .stamps/node
	@cd web && ./node_modules/.bin/openapi-typescript src/api/openapi.json -o src/api/schema.d.ts >/dev/null
	@touch $@

.stamps/build: .stamps/client .stamps/run $(WEB)
	@echo "== the interface"
	@cd web && ./node_modules/.bin/tsc --noEmit && ./node_modules/.bin/vite build --logLevel warn
	@$(VENV)/python -m whitenoise.compress --quiet web/dist
	@touch $@

.stamps/chromium:
	@mkdir -p .stamps
	@if [ ! -x /usr/bin/chromium-headless-shell ]; then echo "== Chromium by apt"; $(SUDO) apt-get update -qq && $(SUDO) DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell >/dev/null || test -x /usr/bin/chromium; fi
	@touch $@

install: .stamps/python .stamps/client ## Install Python and front-end packages
build: .stamps/build ## Build the interface
setup: install build .stamps/chromium ## Everything that running and testing need

# --- running ------------------------------------------------------------------------------------------------

demo: .stamps/run .stamps/build ## Load the demo account and serve it; prints address and sign-in
	@$(VENV)/python manage.py bring_up_to_date
	@GREENMEASURE_SIMS=http://127.0.0.1:$(SIMS) $(VENV)/python manage.py load_demo --plan
	@$(VENV)/python -m greenmeasure.serve --port $(PORT) --sims $(SIMS)

serve: .stamps/run .stamps/build ## Serve without touching the demo account
	@$(VENV)/python manage.py bring_up_to_date
	@$(VENV)/python -m greenmeasure.serve --port $(PORT) --fetch

# --- proving ------------------------------------------------------------------------------------------------

test: setup ## Every test: the core, the API, the interface in Chromium
	@$(VENV)/python manage.py test --timing --parallel 2 core greenmeasure e2e

test-core: .stamps/python ## The core alone
	@$(VENV)/python manage.py test core

test-api: install ## The core and the API
	@$(VENV)/python manage.py test core greenmeasure

test-postgres: install .stamps/postgres ## The core and the API once more, on a PostgreSQL that is gone afterwards
	@$(VENV)/python -m scripts.with_postgres $(VENV)/python manage.py test --timing --parallel 2 core greenmeasure

test-web: setup ## The interface in Chromium
	@$(VENV)/python manage.py test e2e

lint: install ## ruff, mypy (strict on the core), eslint, prettier, tsc
	@$(VENV)/ruff check . && $(VENV)/ruff format --check .
	@$(VENV)/mypy
	@cd web && ./node_modules/.bin/tsc --noEmit && ./node_modules/.bin/eslint src && ./node_modules/.bin/prettier --check --log-level warn src

format: install ## Put the code in its form
	@$(VENV)/ruff check --fix --quiet . ; $(VENV)/ruff format --quiet .
	@cd web && ./node_modules/.bin/prettier --write --log-level warn src

client: .stamps/python ## Write the OpenAPI document, then make the TypeScript client from it
	@$(VENV)/python -m greenmeasure.openapi
	@$(MAKE) --no-print-directory .stamps/client

shots: setup ## Take the pictures in docs/screenshots from the demo account
	@$(VENV)/python -m scripts.shots

bench: .stamps/python .stamps/build ## Speed, as ratios measured in one run
	@$(VENV)/python -m bench

.stamps/postgres:
	@if ! ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1; then echo "== PostgreSQL by apt"; $(SUDO) apt-get update -qq && $(SUDO) DEBIAN_FRONTEND=noninteractive apt-get install -y -qq postgresql >/dev/null; fi
	@touch $@

.stamps/nginx:
	@if ! command -v nginx >/dev/null; then echo "== nginx by apt"; $(SUDO) apt-get update -qq && $(SUDO) apt-get install -y -qq nginx-light >/dev/null; fi
	@touch $@

break: .stamps/python .stamps/build .stamps/nginx ## Wrong requests by the thousand, spoilt rows: what the suite does in short, at length
	@$(VENV)/python -m stress

clean: ## Remove what was built and installed, never the data
	rm -rf .venv .stamps web/node_modules web/dist .mypy_cache .ruff_cache .hypothesis
