# Anlage. `make help` explains each target; the environment builds itself when missing or stale.
SHELL := /bin/bash
PYTHON ?= python3
VENV := .venv
BIN := $(VENV)/bin
STAMP := $(VENV)/.stamp
test bench screenshots torture: export QT_QPA_PLATFORM = offscreen

.PHONY: help demo test check bench torture mutants screenshots packaging lock clean
.DEFAULT_GOAL := help

help: ## list the targets
	@grep -E '^[a-z]+:.*##' Makefile | sed -E 's/^([a-z]+):.*## /\1\t/' | expand -t 14

$(STAMP): requirements.lock pyproject.toml tools/machine.py
	@$(PYTHON) tools/machine.py build
	@echo "1 of 3: making the environment in $(VENV)"
	@rm -rf $(VENV)
	@$(PYTHON) -m venv $(VENV)
	@echo "2 of 3: installing what Anlage is built on, $$(grep -c '==' requirements.lock) packages; takes a minute or two"
	@$(BIN)/python -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements.lock
	@echo "3 of 3: installing Anlage itself"
	@$(BIN)/python -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
	@touch $(STAMP)

demo: $(STAMP) ## open the application on the demo
	@$(BIN)/python tools/machine.py screen
	@echo "opening the demo"
	@$(BIN)/anlage demo

N ?= 1
torture: $(STAMP) ## do everything to break the application, N times what takes minutes
	@$(BIN)/python tools/machine.py offscreen
	@$(BIN)/python -m tests.torture $(N)

mutants: $(STAMP) ## put one fault at a time into the core and tell which no test notices
	@$(BIN)/python tools/mutants.py

screenshots: $(STAMP) ## renew the pictures in docs/screenshots
	@$(BIN)/python tools/machine.py offscreen
	@$(BIN)/anlage screenshots docs/screenshots --force

test: $(STAMP) ## run all tests headless
	@$(BIN)/python tools/machine.py offscreen
	@$(BIN)/python -m pytest -n auto

check: $(STAMP) ## ruff, formatting, strict typing, import contracts
	@$(BIN)/ruff check .
	@$(BIN)/ruff format --check .
	@$(BIN)/mypy
	@$(BIN)/lint-imports

bench: $(STAMP) ## speed, as ratios measured in one run
	@$(BIN)/python tools/bench.py
	@$(BIN)/python tools/bench_section.py
	@$(BIN)/python tools/bench_window.py

packaging: $(STAMP) ## make the manual page and the completions from the command table
	@$(BIN)/python tools/packaging.py

lock: $(STAMP) ## renew requirements.lock, with hashes, from pyproject.toml
	@$(BIN)/pip-compile --quiet --upgrade --generate-hashes --strip-extras --allow-unsafe --extra dev \
		--no-emit-index-url --no-emit-find-links --no-emit-trusted-host --no-header -o requirements.lock pyproject.toml

clean: ## remove the environment and every cache
	@rm -rf $(VENV) .pytest_cache .ruff_cache .mypy_cache .hypothesis .import_linter_cache
