#!/usr/bin/env bash
# Writes again what is made from the code: OpenAPI document, TypeScript types, JSON Schema, map of the house.
set -euo pipefail
cd "$(dirname "$0")/.."
cargo build --quiet
target/debug/ulvek openapi >web/src/api/openapi.json
target/debug/ulvek catalogue >web/src/api/catalogue.json
target/debug/ulvek schema >docs/formats/studio.schema.json
target/debug/ulvek schema --record >docs/formats/record.schema.json
(cd web && node_modules/.bin/openapi-typescript src/api/openapi.json -o src/api/schema.ts)
node scripts/map.mjs
