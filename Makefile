# The two commands: `make demo` and `make test`. Each does all its own set-up on a fresh Debian machine.
SHELL := /bin/bash
PY := .venv/bin/python
PORT ?= 8421
export HYPOTHESIS_STORAGE_DIRECTORY ?= $(CURDIR)/.cache/hypothesis

.PHONY: demo test setup check bench shots winters build lint types tables openapi browser audit licences clean

demo: setup build
	.venv/bin/brass-clock serve --demo --port $(PORT)

# three workers on two cores: two have tests of the interface, which wait more than they compute, and one the rest
test: browser
	$(MAKE) --no-print-directory -j2 setup
	$(MAKE) --no-print-directory -j2 --output-sync=target lint web-checks
	$(MAKE) --no-print-directory build
	$(PY) -m pytest -n 3

check: setup lint web-checks
	$(PY) -m pytest -q tests/core tests/store

setup: .venv/.stamp web/node_modules/.stamp

.venv/.stamp: requirements.lock pyproject.toml
	test -x .venv/bin/python || python3 -m venv .venv
	$(PY) -m pip install -q uv==0.13.9
	$(PY) -m uv pip install -q --python $(PY) --compile-bytecode --require-hashes -r requirements.lock
	$(PY) -m uv pip install -q --python $(PY) --no-deps --no-build-isolation -e .
	$(PY) -m compileall -q src tools
	.venv/bin/brass-clock warm
	touch $@

web/node_modules/.stamp: web/package-lock.json
	cd web && npm ci --ignore-scripts --no-audit --no-fund
	touch $@

# Debian's Chromium, for the interface tests and the pictures
browser:
	command -v chromium-headless-shell >/dev/null || (apt-get update -qq; apt-get install -y -qq --no-install-recommends chromium-headless-shell >/dev/null) \
		|| command -v chromium >/dev/null || apt-get install -y -qq --no-install-recommends chromium >/dev/null

lint: setup
	$(PY) -m ruff check src tests tools
	$(PY) -m ruff format --check src tests tools
	$(PY) -m mypy
	.venv/bin/lint-imports --no-cache

.PHONY: web-checks
web-checks: setup
	cd web && npm run -s typecheck && npm run -s lint && npm run -s boundaries && npm run -s test

build: setup
	cd web && npm run -s build

# After a change of the API: the OpenAPI document and the types made from it, both committed
types: setup
	.venv/bin/brass-clock openapi > web/openapi.new
	mv web/openapi.new src/brassclock/api/openapi.json
	cd web && npm run -s types

# After a change of a parameter: the tables of docs/science.md
tables: setup
	$(PY) tools/science_tables.py && $(PY) tools/practice_heat.py

bench: setup
	$(PY) tools/bench.py
	$(PY) tools/bench_server.py
	$(PY) tools/bench_house.py
	$(PY) tools/bench_logbook.py
	$(PY) tools/bench_screen.py

shots: setup browser build
	$(PY) tools/shots.py

winters: setup
	$(PY) tools/make_winters.py

# Known holes in what is pinned, where the registries tell them; it says so where they do not
audit: setup
	$(PY) -m uv tool run pip-audit==2.10.1 -r requirements.lock --disable-pip || echo "Python: see above; what could not be asked is pinned and not audited"
	cd web && npm audit --omit=dev || echo "npm: see above; what could not be asked is pinned and not audited"

licences: setup
	$(PY) tools/licences.py

clean:
	rm -rf .venv web/node_modules .cache src/brassclock/web
