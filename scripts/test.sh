#!/usr/bin/env bash
# Everything: types, lint, unit tests, build, browser tests. Installs what is missing first.
set -euo pipefail
cd "$(dirname "$0")/.."
log=$(mktemp)
trap 'rm -f "$log"' EXIT
bash scripts/ready.sh browser
echo "== types";  npm run --silent typecheck
echo "== lint";   npm run --silent lint
echo "== unit";   NO_COLOR=1 npm run --silent test:unit | tee -a "$log"
echo "== build";  npm run --silent build
echo "== browser"; npm run --silent test:e2e | tee -a "$log"
# A run that comes this far has no failure; the sum of both runners closes it.
unit=$(grep -oE 'Tests +[0-9]+ passed' "$log" | grep -oE '[0-9]+')
browser=$(grep -oE '^ +[0-9]+ passed' "$log" | tail -n 1 | grep -oE '[0-9]+')
echo "$((unit + browser)) passed, 0 failed"
