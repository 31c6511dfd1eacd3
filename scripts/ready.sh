#!/usr/bin/env bash
# Installs what is missing: the packages of the lock file, and with "browser" Debian's Chromium and assimp for tests.
set -euo pipefail
cd "$(dirname "$0")/.."
stamp=node_modules/.installed
if [ ! -f "$stamp" ] || [ package-lock.json -nt "$stamp" ]; then
  npm ci --no-audit --no-fund
  touch "$stamp"
fi
if [ "${1:-}" = browser ]; then
  need=()
  [ -x /usr/bin/chromium ] || need+=(chromium)
  command -v assimp >/dev/null || need+=(assimp-utils)
  if [ "${#need[@]}" -gt 0 ]; then
    sudo=$([ "$(id -u)" = 0 ] && echo "" || echo sudo)
    $sudo apt-get update && $sudo apt-get install -y --no-install-recommends "${need[@]}"
  fi
fi
