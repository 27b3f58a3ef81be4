#!/bin/sh
# Installs what the lock file names, only when it changed, and builds the client into the jar's static files.
set -eu
stamp=node_modules/.mossbank-lock
if ! cmp -s package-lock.json "$stamp"; then
    npm ci --no-audit --no-fund
    cp package-lock.json "$stamp"
fi
npm run --silent build
