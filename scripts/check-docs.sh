#!/usr/bin/env bash
# Links of the pages lead somewhere, pages that the code cites are there, and the map is that of the present house.
set -euo pipefail
cd "$(dirname "$0")/.."
links="$PWD/e2e/node_modules/remark-validate-links/index.js=repository:false"
e2e/node_modules/.bin/remark --use "$links" --no-stdout --frail --quiet ./*.md docs
missing=0
for page in $(git grep -hoE '[A-Za-z_/-]+\.md\b' -- crates scripts web/src e2e/journeys | sort -u); do
  [ -e "$page" ] || { echo "$page is cited and is not there" >&2; missing=1; }
done
node scripts/map.mjs --check
exit "$missing"
