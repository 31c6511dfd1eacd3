#!/usr/bin/env bash
# Types of every package, the application's beside the others. What has not changed since the last time is not checked again.
set -euo pipefail
cd "$(dirname "$0")/.."
bin=node_modules/.bin
kept=node_modules/.cache/types
check() { "$bin/$1" -p "$2" --incremental --tsBuildInfoFile "$kept/$2.tsbuildinfo"; }
check vue-tsc app &
app=$!
trap 'kill $app 2>/dev/null || true' EXIT
for p in core content cli server benchmarks e2e tsconfig.test.json; do check tsc "$p"; done
wait "$app"
