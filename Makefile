# Aptum. Two commands do everything on a fresh machine: `make demo` and `make test`.
.PHONY: demo test soak bench shots reference reference-nesting reference-travel reference-misfeeds reference-rehearsals bench-beside types release web lint formatting check-types tools clean

# Headless Chromium for the end-to-end tests and the pictures.
APT := $(if $(filter 0,$(shell id -u)),,sudo )apt-get

# Built as the tests are, optimised where it counts: a full release build takes more than twice as long.
demo: web
	cargo build --workspace
	./target/debug/aptum demo --data .demo

# The program for every day.
release: web
	cargo build --release -p aptum

test: tools web formatting
	cargo test --workspace --no-run
	$(MAKE) check-types
	cargo test --workspace

# The server killed KILLS times while two clients write; then the property tests of the core and the formats over
# new cases, SOAK rounds of them. A failure prints its seed.
SOAK := 20
KILLS := 200
# Damaged drawings that each reader is given.
MUTANTS := 1000000
soak:
	APTUM_KILLS=$(KILLS) cargo test -q -p aptum --test served kills
	APTUM_MUTANTS=$(MUTANTS) cargo test -q -p aptum-formats --test written broken
	for round in $$(seq $(SOAK)); do \
		seed=$$(date +%s%N); echo "seed $$seed"; \
		PROPTEST_RNG_SEED=$$seed cargo test -q -p aptum-core -p aptum-formats || exit 1; \
	done

bench: tools release
	cargo bench --workspace
	$(MAKE) bench-beside

# Times of general-purpose libraries on the same pictures and outlines; needs python3 with venv, and pip.
bench-beside:
	test -d target/reference/venv || python3 -m venv target/reference/venv
	target/reference/venv/bin/pip install -q numpy opencv-python-headless pyclipper
	target/reference/venv/bin/python tools/reference/beside.py

shots: tools web
	cargo build -p aptum
	mkdir -p docs/screenshots
	cargo run -p aptum-e2e --bin shots

# The API's types in TypeScript, from the Rust ones.
types:
	cargo run -q -p aptum -- types > web/src/api/generated/types.ts

# The tables of other libraries that tests compare with; needs python3 with venv, and pip.
reference:
	cargo run -q -p aptum-formats --example reference_files -- target/reference
	test -d target/reference/venv || python3 -m venv target/reference/venv
	target/reference/venv/bin/pip install -q trimesh scipy shapely ezdxf uharfbuzz scikit-image pyclipper pillow svgpathtools
	target/reference/venv/bin/python tools/reference/tables.py target/reference \
		crates/formats/tests/reference/tables.json
	target/reference/venv/bin/python tools/reference/shaping.py crates/core/fonts \
		crates/core/tests/reference/shaping.json
	target/reference/venv/bin/python tools/reference/flooding.py crates/formats/tests/reference
	target/reference/venv/bin/python tools/reference/fits.py crates/core/tests/reference/fits.json
	target/reference/venv/bin/python tools/reference/drawings.py crates/formats/tests/reference/drawings
	target/reference/venv/bin/python tools/reference/tracing.py crates/formats/tests/reference \
		crates/core/tests/reference/borders.json

# Nesting against spyrrow at equal time; needs python3 with venv, and pip. Takes about ten minutes.
reference-nesting:
	cargo build --release -p aptum-core --example nest_set
	test -d target/reference/venv || python3 -m venv target/reference/venv
	target/reference/venv/bin/pip install -q spyrrow
	target/reference/venv/bin/python tools/reference/nesting.py \
		target/release/examples/nest_set tools/reference/nesting.md

# How near the simulated eye finds marks to where they lie, over SHEETS misfeeds of each kind.
SHEETS := 1000
reference-misfeeds:
	cargo build -q --release -p aptum-devices --example misfeeds
	target/release/examples/misfeeds $(SHEETS) > target/misfeeds.md
	cat tools/reference/misfeeds.head.md target/misfeeds.md > tools/reference/misfeeds.md

# Cut against print over whole rehearsals, and over sheets reckoned with the errors that the eye showed.
REHEARSED := 100
RECKONED := 10000
reference-rehearsals:
	cargo build -q --release -p aptum --example rehearsals
	target/release/examples/rehearsals $(REHEARSED) $(RECKONED) > target/rehearsals.md
	cat tools/reference/rehearsals.head.md target/rehearsals.md > tools/reference/rehearsals.md

# Travel of the tool against LKH; needs python3 with venv, and pip. Takes about ten minutes.
reference-travel:
	cargo build --release -p aptum-core --example order_lines
	test -d target/reference/venv || python3 -m venv target/reference/venv
	target/reference/venv/bin/pip install -q elkai
	target/reference/venv/bin/python tools/reference/travel.py \
		target/release/examples/order_lines tools/reference/travel.md

web: web/node_modules/.made
	cd web && npm run check && npm run build

web/node_modules/.made: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

# Before a commit. Not a part of `make test`, since Clippy looks through every package once more.
lint: formatting
	cargo clippy --workspace --all-targets -- -D warnings

formatting: web/node_modules/.made
	cargo fmt --all --check
	cd web && npm run lint

check-types:
	./target/debug/aptum types | cmp - web/src/api/generated/types.ts \
		|| (echo "web/src/api/generated/types.ts is not current: run make types and commit it"; exit 1)

tools:
	@command -v chromium >/dev/null && command -v chromedriver >/dev/null \
		|| ($(APT) update -qq && $(APT) install -y -qq --no-install-recommends chromium chromium-driver)

clean:
	rm -rf target web/dist web/node_modules .demo
