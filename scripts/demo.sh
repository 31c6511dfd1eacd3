#!/usr/bin/env bash
# Installs, builds and serves the application with the demo data. Options go to the server: npm run demo -- --port 8080
set -euo pipefail
cd "$(dirname "$0")/.."
bash scripts/ready.sh
npm run --silent build
exec node server/dist/main.js "$@"
