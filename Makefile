# Two commands for a fresh machine: `make demo` and `make test`. Both set up everything they need.
VENV := .venv
PY := $(VENV)/bin/python
STAMP := $(VENV)/.ready

.PHONY: setup demo test check bench torture mutants jobs shots lock clean

setup: $(STAMP)

$(STAMP): requirements.lock pyproject.toml tools/setup.sh
	@bash tools/setup.sh $(VENV)
	@touch $(STAMP)

demo: $(STAMP)
	@if [ -n "$$DISPLAY$$WAYLAND_DISPLAY" ]; then $(PY) -m zesty_pivot demo; else \
	  echo "No display found: writing the demo's sheets and pictures to out/demo instead of opening the window."; \
	  QT_QPA_PLATFORM=offscreen $(PY) -m zesty_pivot demo-sheets --out out/demo; fi

# Each day a share of every large family of cases; all of them with `make test WHOLE=1`.
test: $(STAMP)
	WHOLE=$(WHOLE) QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n auto --dist worksteal

check: $(STAMP)
	$(VENV)/bin/ruff check .
	$(VENV)/bin/ruff format --check .
	$(VENV)/bin/mypy
	$(VENV)/bin/lint-imports

bench: $(STAMP)
	QT_QPA_PLATFORM=offscreen $(PY) -m bench

# Everything that tries to break it, by seeds: `make torture SEED="20261128 7" SHARE=0.1`, or with MINUTES=10.
torture: $(STAMP)
	$(PY) -m tests.torture $(if $(SEED),--seed $(SEED)) $(if $(SHARE),--share $(SHARE)) $(if $(MINUTES),--minutes $(MINUTES))

# A fixed sample of mutations of the core against the tests that reach them; what survives is printed.
mutants: $(STAMP)
	$(PY) -m tests.mutants

# What users do in a day, by mouse and keys in the real window, counted; one of the jobs in a window under Xvfb as well.
jobs: $(STAMP)
	QT_QPA_PLATFORM=offscreen $(PY) -m tests.jobs
	QT_QPA_PLATFORM=xcb xvfb-run -a -s "-screen 0 1280x800x24" $(PY) -m tests.jobs --only J22

shots: $(STAMP)
	QT_QPA_PLATFORM=offscreen $(PY) tools/shots.py

# Pins every dependency with its hashes; run after changing pyproject.toml.
lock:
	$(VENV)/bin/pip-compile --quiet --strip-extras --allow-unsafe --generate-hashes --no-emit-find-links \
	  --no-emit-index-url --no-emit-options --extra dev --output-file requirements.lock pyproject.toml

clean:
	rm -rf $(VENV) out build .mypy_cache .ruff_cache .pytest_cache .hypothesis
