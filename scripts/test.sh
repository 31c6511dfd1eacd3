#!/usr/bin/env bash
# Everything: types, lint, unit tests, build, browser tests. Installs what is missing first.
set -euo pipefail
cd "$(dirname "$0")/.."
bash scripts/ready.sh browser
echo "== types";  npm run --silent typecheck
echo "== lint";   npm run --silent lint
echo "== unit";   npm run --silent test:unit
echo "== build";  npm run --silent build
echo "== browser"; npm run --silent test:e2e
