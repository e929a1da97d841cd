# Four commands, each setting up what it needs: make demo, make test, make check, make bench.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMPS := .stamps
DATA ?= demo-data
PORT ?= 0

.PHONY: demo test check bench screenshots openapi clean lock

demo: $(STAMPS)/python $(STAMPS)/web
	$(BIN)/jumpstop demo --data "$(DATA)" --port $(PORT) $(if $(RESET),--reset)

test: check $(STAMPS)/browser $(STAMPS)/web
	$(BIN)/python -m pytest

check: $(STAMPS)/python $(STAMPS)/npm
	$(BIN)/ruff check . && $(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/python -m jumpstop.api.openapi --check docs/openapi.json
	cd web && npm run --silent types:check && npm run --silent lint && npm run --silent check && npm run --silent test

bench: $(STAMPS)/python $(STAMPS)/web $(STAMPS)/browser
	$(BIN)/python bench/run.py

screenshots: $(STAMPS)/python $(STAMPS)/web $(STAMPS)/browser
	$(BIN)/python bench/screenshots.py

openapi: $(STAMPS)/python $(STAMPS)/npm
	$(BIN)/python -m jumpstop.api.openapi docs/openapi.json
	cd web && npm run --silent types

lock: $(STAMPS)/python
	$(BIN)/pip install -q uv && $(BIN)/uv pip compile --universal --python-version 3.11 --no-header --no-emit-index-url --extra dev pyproject.toml -o requirements.lock

clean:
	rm -rf $(VENV) $(STAMPS) web/node_modules src/jumpstop/web

$(STAMPS)/python: pyproject.toml requirements.lock
	$(PYTHON) -c 'import sys; sys.exit("Python 3.11 or newer is needed." if sys.version_info < (3, 11) else 0)'
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	$(BIN)/pip install -q --disable-pip-version-check -r requirements.lock
	$(BIN)/pip install -q --disable-pip-version-check --no-deps -e .
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/npm: web/package.json web/package-lock.json
	cd web && npm ci --silent --no-audit --no-fund
	@mkdir -p $(STAMPS) && touch $@

WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts -type f 2>/dev/null)

$(STAMPS)/web: $(STAMPS)/npm $(WEB_SOURCES)
	cd web && npm run --silent build
	@mkdir -p $(STAMPS) && touch $@

# The tests drive Debian's own Chromium; no browser is downloaded.
$(STAMPS)/browser: $(STAMPS)/python
	test -x /usr/bin/chromium || (apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium)
	@mkdir -p $(STAMPS) && touch $@
