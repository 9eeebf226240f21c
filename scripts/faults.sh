#!/usr/bin/env bash
# Kills the application and its database again and again under writers, cuts first starts off at
# random moments, and fills a disk. Prints how often, and what was lost. Usage:
# scripts/faults.sh [KILLS] [STARTS], 1000 and 100 if not said. The disk is filled only as root.
set -euo pipefail
cd "$(dirname "$0")/.."
export PATH="$PATH:/usr/sbin"
scripts/setup.sh
cargo build --quiet
ULVEK_KILLS="${1:-1000}" ULVEK_STARTS="${2:-100}" \
  cargo test --quiet -p ulvek-server --test process faults:: -- --nocapture --test-threads=1
