# Two commands do everything: `make demo` starts Izett with demo data, `make test` runs all checks and tests.
SHELL := /bin/bash
.DEFAULT_GOAL := help
PYTHON ?= python3
PORT ?= 8765
# Of the tests without the browser, side by side.
WORKERS ?= 2
BIN := .venv/bin
# Compiled once, not at every start: some machines are set to keep nothing.
export PYTHONDONTWRITEBYTECODE :=
WEB_SOURCES := $(shell find web/src web/public web/index.html web/*.ts web/*.js web/package.json -type f 2>/dev/null)

# The tests that stand beside what was changed since the last commit.
TOUCHED = $(shell { git diff --name-only HEAD; git ls-files --others --exclude-standard; } \
  | sed -nE 's,^izett/([a-z]+)/.*,tests/core/\1,p; s,^studio/.*,tests/studio,p; s,^(tests/(core|studio)/.*\.py)$$,\1,p' \
  | sort -u | xargs -r ls -d 2>/dev/null)

.PHONY: help quick demo test test-python test-browser check check-python check-web test-web fix api lock bench sweep screenshots serve chromium clean

help: ## show what there is
	@grep -E '^[a-z]+:.*##' $(MAKEFILE_LIST) | sed 's/:.*## /\t/'

.venv/.ready: requirements/dev.txt requirements/uv.txt
	$(PYTHON) -m venv .venv
	$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/uv.txt
	$(BIN)/uv pip sync --quiet --require-hashes --python $(BIN)/python requirements/dev.txt
	touch $@

web/node_modules/.ready: web/package-lock.json
	cd web && npm ci --no-audit --no-fund --loglevel=error
	touch $@

web/dist/index.html: web/node_modules/.ready $(WEB_SOURCES)
	cd web && npm run --silent build -- --logLevel warn
	@touch $@

demo: .venv/.ready web/dist/index.html ## start Izett with demo data at http://127.0.0.1:8765/
	IZETT_DATA=var/demo $(BIN)/python manage.py migrate --verbosity 0
	IZETT_DATA=var/demo $(BIN)/python manage.py demo
	IZETT_DATA=var/demo $(BIN)/python manage.py serve --port $(PORT)

serve: .venv/.ready web/dist/index.html ## start Izett with your own data, kept in var/
	$(BIN)/python manage.py migrate --verbosity 0
	$(BIN)/python manage.py serve --port $(PORT)

check: .venv/.ready web/node_modules/.ready ## formatting, lint, types, import contracts, generated files
	@$(MAKE) --no-print-directory --jobs=2 check-python check-web

check-python: .venv/.ready
	$(BIN)/ruff format --check --quiet .
	$(BIN)/ruff check --quiet .
	$(BIN)/mypy
	$(BIN)/lint-imports --no-cache
	$(BIN)/python manage.py makemigrations --check --dry-run --verbosity 0
	@rm -rf var/formats && mkdir -p var/formats
	$(BIN)/python manage.py openapi --out var/formats
	diff -r --exclude=README.md var/formats docs/formats

check-web: web/node_modules/.ready
	cd web && npm run --silent lint && npm run --silent check
	@mkdir -p var
	cd web && npx openapi-typescript ../docs/formats/openapi.json -o ../var/schema.d.ts > /dev/null && diff ../var/schema.d.ts src/lib/api/schema.d.ts

chromium:
	@command -v chromium > /dev/null || { \
	  as_root=$$([ "$$(id -u)" = 0 ] || echo sudo); \
	  $$as_root apt-get update -qq && $$as_root apt-get install -y -qq chromium; }

test: ## everything that must hold: make check, then all tests
	@$(MAKE) --no-print-directory --jobs=2 .venv/.ready chromium web/dist/index.html
	@$(MAKE) --no-print-directory --jobs=2 check-python test-web
	@$(MAKE) --no-print-directory --jobs=2 test-python test-browser

# A page under test waits more than it works: its tests go beside the others, and first where both want a core.
test-python: .venv/.ready
	nice -n 5 $(BIN)/python -m pytest --ignore=tests/browser --numprocesses=$(WORKERS) --dist worksteal

test-browser: .venv/.ready chromium web/dist/index.html
	$(BIN)/python -m pytest tests/browser -p no:cacheprovider

test-web: check-web
	cd web && npm test --silent

quick: .venv/.ready web/node_modules/.ready ## lint, types, and the tests beside what was changed since the last commit
	$(BIN)/ruff format --check --quiet . && $(BIN)/ruff check --quiet . && $(BIN)/mypy
	cd web && npm run --silent check && npm test --silent
	$(if $(TOUCHED),$(BIN)/python -m pytest --exitfirst --numprocesses=$(WORKERS) $(TOUCHED))

fix: .venv/.ready web/node_modules/.ready ## format and fix what can be fixed by itself
	$(BIN)/ruff format --quiet .
	$(BIN)/ruff check --fix --quiet .
	cd web && npm run --silent fix

api: .venv/.ready web/node_modules/.ready ## write docs/formats and the typed client anew
	$(BIN)/python manage.py openapi
	cd web && npm run --silent api

lock: .venv/.ready ## resolve the Python requirements anew
	$(BIN)/uv pip compile --quiet --universal --python-version 3.11 --generate-hashes requirements/uv.in -o requirements/uv.txt
	$(BIN)/uv pip compile --quiet --universal --python-version 3.11 --generate-hashes requirements/app.in -o requirements/app.txt
	$(BIN)/uv pip compile --quiet --universal --python-version 3.11 --generate-hashes requirements/dev.in -o requirements/dev.txt

bench: chromium .venv/.ready web/dist/index.html ## measure the budgets, each beside a floor of the same run
	$(BIN)/python -m tests.bench

sweep: .venv/.ready web/dist/index.html ## draft and cut for every body there is and count what holds; lay, try the API, kill the server, drape and fit at length
	$(BIN)/python -m tests.sweep
	$(BIN)/python -m tests.lay_sweep
	IZETT_CASES=370 IZETT_KILLS=300 $(BIN)/python -m pytest tests/studio/test_contract.py tests/studio/test_storage.py -k "description or killed"
	IZETT_BODIES=8 $(BIN)/python -m pytest tests/core/fitting/test_every_remedy.py -k bodies
	IZETT_PICTURES=24 $(BIN)/python -m pytest tests/core/tracing/test_photos.py
	IZETT_LINES=1 $(BIN)/python -m pytest tests/core/fitting/test_draped_anew.py -k every_garment -s
	IZETT_DRAPED=100 $(BIN)/python -m pytest tests/core/draping/test_truing.py -k scatter
	IZETT_WEARERS=300 $(BIN)/python -m pytest tests/core/fitting/test_simulated_wearers.py -s

screenshots: chromium .venv/.ready web/dist/index.html ## take the pictures of docs/screenshots anew
	$(BIN)/python -m tests.screenshots

clean: ## remove what was installed and built (data in var/ stays)
	rm -rf .venv web/node_modules web/dist
