# Two commands: `make demo` serves the demo job, `make test` proves everything.
.PHONY: demo test quick setup-demo setup-test pictures screenshots types fmt lint

PORT ?= 7420
LAID_OUT = web/src e2e web/vite.config.ts web/eslint.config.js

# Core does the sums of all tests: compiled for speed they take a sixth of the time. A plain `cargo test` compiles it as it
# is, so that one test of a changed line is there in seconds.
FAST = --config 'profile.test.package.steelk-core.opt-level=1'

demo: setup-demo
	@echo "== Building Steelk"
	cargo build --release --locked -p steelk-server
	@echo "== Serving the demo job at http://127.0.0.1:$(PORT) (Ctrl+C ends it)"
	./target/release/steelk serve --demo --data steelk-demo-data --port $(PORT)

test: setup-test
	@echo "== Testing: Rust, reference libraries, front end, browser"
	cargo test --locked --workspace $(FAST)

# Core and formats, without what needs Python or a browser.
WITH_PYTHON = kernel shapely another_ open template:: corpus:: solid::
quick:
	cargo test --locked $(FAST) -p steelk-core
	cargo test --locked $(FAST) -p steelk-formats -- $(addprefix --skip ,$(WITH_PYTHON))

setup-demo:
	@bash scripts/setup.sh demo

setup-test:
	@bash scripts/setup.sh test

# Draws the demo's drawings again; needs `make setup-test` once.
pictures:
	.tools/venv/bin/python scripts/demo_drawings.py demo
	.tools/venv/bin/python scripts/demo_photo.py demo

# Lays out Rust and the front end as they should be; the tests refuse a front end that is not.
fmt:
	cargo fmt --all
	npx prettier --write --log-level warn $(LAID_OUT)

# What needs no run to be found: how things are laid out, what the compilers and linters say, links in the documentation.
lint: setup-test
	cargo fmt --all --check
	npx prettier --check --log-level warn $(LAID_OUT)
	npx tsc --noEmit -p web && npx tsc --noEmit -p e2e
	cd web && npx eslint --max-warnings 0 src
	cargo clippy --locked --workspace --all-targets -- -D warnings
	RUSTDOCFLAGS="-D warnings" cargo doc --locked --workspace --no-deps

# Writes the API's description, the piece schema and the front end's types from the Rust types.
types:
	cargo run -q -p steelk-server -- openapi > docs/openapi.json
	cargo run -q -p steelk-server -- schema > docs/piece.schema.json
	npm run --silent types --workspace web

# Takes docs/screenshots again from a demo served at PORT.
screenshots:
	BASE_URL=http://127.0.0.1:$(PORT) node e2e/screenshots.mjs
