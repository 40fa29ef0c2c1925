#!/usr/bin/env bash
# Installs what Steelk needs and builds the front end. `setup.sh demo` for the application, `setup.sh test` for its
# tests as well. A second run installs nothing: each step keeps a stamp of what it was made from under .tools/.
set -euo pipefail
cd "$(dirname "$0")/.."
what="${1:-demo}"
mkdir -p .tools

say() { printf '== %s\n' "$*"; }
stop() { printf 'Stopped: %s\n' "$*" >&2; exit 1; }

command -v cargo >/dev/null || stop "Rust is missing: cargo was not found. Install Rust 1.95 or later, then run this again."
command -v node >/dev/null || stop "Node is missing: node was not found. Install Node 20 or later, then run this again."
command -v npm >/dev/null || stop "npm is missing: it comes with Node 20 or later. Install it, then run this again."
node -e 'process.exit(Number(process.versions.node.split(".")[0]) >= 20 ? 0 : 1)' ||
  stop "Node $(node --version) is too old: version 20 or later is needed."

apt_install() {
  command -v apt-get >/dev/null || stop "apt-get was not found, and these are missing: $*. Install them by hand, then run this again."
  local sudo=""
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || stop "these need to be installed by an administrator: apt-get install $*"
    sudo="sudo"
  fi
  say "Installing $* (apt)"
  $sudo apt-get update -qq || stop "apt-get update failed; is the package mirror reachable?"
  DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq "$@" >.tools/apt.log 2>&1 ||
    stop "apt-get install $* failed; its words are in .tools/apt.log"
}

# Runs a step unless its inputs are the same as the last time it passed.
step() {
  local stamp=".tools/$1.stamp" sum="$2" words="$3"
  shift 3
  if [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$sum" ]; then
    say "$words: as it was"
    return
  fi
  say "$words"
  "$@"
  printf '%s' "$sum" >"$stamp"
}

sum_of() { git ls-files -co --exclude-standard -- "$@" 2>/dev/null | sort | xargs -r -d '\n' sha256sum 2>/dev/null | sha256sum | cut -d' ' -f1; }

command -v cc >/dev/null || apt_install build-essential

npm_install() {
  PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund --loglevel=error || stop "npm ci failed; is the npm registry reachable?"
}
[ -d node_modules ] || rm -f .tools/npm.stamp
step npm "$(sum_of package-lock.json)" "Installing front-end packages" npm_install

[ -f web/dist/index.html ] || rm -f .tools/web.stamp
web_build() { npm run --silent build --workspace web || stop "the front end did not build; its words are above"; }
step web "$(sum_of web package-lock.json)" "Building the front end" web_build

if [ "$what" = test ]; then
  if ! command -v chromium >/dev/null && ! [ -x /usr/bin/chromium ]; then apt_install chromium; fi
  command -v python3 >/dev/null || apt_install python3 python3-venv
  python_install() {
    rm -rf .tools/venv
    python3 -m venv .tools/venv >.tools/venv.log 2>&1 || { apt_install python3-venv; rm -rf .tools/venv; python3 -m venv .tools/venv; }
    .tools/venv/bin/python -m pip install --quiet --disable-pip-version-check -r scripts/requirements.txt ||
      stop "pip install failed; is the Python package registry reachable?"
  }
  [ -x .tools/venv/bin/python ] || rm -f .tools/python.stamp
  step python "$(sum_of scripts/requirements.txt)" "Installing the reference libraries" python_install
fi
say "Set up for $what"
