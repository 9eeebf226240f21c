#!/usr/bin/env bash
# Installs what is missing on a fresh Debian machine. Usage: scripts/setup.sh [test]
# With "test", Chromium and cargo-nextest are made sure of too.
set -euo pipefail
cd "$(dirname "$0")/.."

say() { printf 'ulvek: %s\n' "$*" >&2; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi
}

wanted=()
command -v mariadbd >/dev/null || [ -x /usr/sbin/mariadbd ] || wanted+=(mariadb-server)
command -v cc >/dev/null || wanted+=(gcc libc6-dev)
command -v curl >/dev/null || wanted+=(curl ca-certificates)
if [ "${1:-}" = test ]; then
  command -v chromium >/dev/null || wanted+=(chromium)
fi
if ! command -v node >/dev/null; then wanted+=(nodejs npm); fi
if [ "${#wanted[@]}" -gt 0 ]; then
  say "installing ${wanted[*]}"
  as_root apt-get update -qq
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${wanted[@]}" >/dev/null
fi

if ! command -v cargo >/dev/null; then
  if [ -x "$HOME/.cargo/bin/cargo" ]; then
    export PATH="$HOME/.cargo/bin:$PATH"
  else
    say "Rust is missing: install Rust 1.95 with rustup, then run this again"
    exit 1
  fi
fi
node_major=$(node -p 'process.versions.node.split(".")[0]')
if [ "$node_major" -lt 20 ]; then
  say "Node.js 20 or newer is needed, not $(node --version)"
  exit 1
fi
if [ "${1:-}" = test ] && ! command -v cargo-nextest >/dev/null; then
  say "installing cargo-nextest"
  cargo install --locked cargo-nextest --version 0.9.143
fi

# Packages of the front end (and of the journeys), when they are not those of the lock file.
folders=(web)
[ "${1:-}" = test ] && folders+=(e2e)
for folder in "${folders[@]}"; do
  if ! cmp -s "$folder/package-lock.json" "$folder/node_modules/.of-lock"; then
    say "installing the packages of $folder"
    (cd "$folder" && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund --loglevel=error)
    cp "$folder/package-lock.json" "$folder/node_modules/.of-lock"
  fi
done
