#!/usr/bin/env bash
# Takes docs/screenshots/*.png again from the demo studio.
set -euo pipefail
cd "$(dirname "$0")/.."
export PATH="$PATH:/usr/sbin"
scripts/setup.sh test
cargo build --quiet
(cd web && npm run --silent build >/dev/null)
mkdir -p docs/screenshots
(cd e2e && node_modules/.bin/tsx screenshots.ts)
