#!/usr/bin/env bash
# Everything: format, types, lint, unit tests, build, browser tests. Installs what is missing first.
# With --quick: what needs neither a build nor a browser.
set -euo pipefail
cd "$(dirname "$0")/.."
quick=$([ "${1:-}" = --quick ] && echo yes || echo no)
log=$(mktemp)
trap 'rm -f "$log"' EXIT
if [ "$quick" = yes ]; then bash scripts/ready.sh; else bash scripts/ready.sh browser; fi
echo "== format"; npm run --silent format:check
echo "== types";  npm run --silent typecheck
echo "== lint";   npm run --silent lint
echo "== unit";   NO_COLOR=1 npm run --silent test:unit | tee -a "$log"
unit=$(grep -oE 'Tests +[0-9]+ passed' "$log" | grep -oE '[0-9]+')
if [ "$quick" = yes ]; then
  echo "$unit passed, 0 failed (browser tests left out)"
  exit
fi
echo "== build";  npm run --silent build
echo "== browser"; npm run --silent test:e2e | tee -a "$log"
# A run that comes this far has no failure; the sum of both runners closes it.
browser=$(grep -oE '^ +[0-9]+ passed' "$log" | tail -n 1 | grep -oE '[0-9]+')
echo "$((unit + browser)) passed, 0 failed"
