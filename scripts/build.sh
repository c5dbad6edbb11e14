# Builds pages and server where their sources are newer than what was built.
set -euo pipefail
cd "$(dirname "$0")/.."
newest=$(find core wire server web scripts package-lock.json vite.config.ts -type f -newer dist/built 2>/dev/null | head -1 || true)
if [ ! -f dist/built ] || [ -n "$newest" ]; then
  echo "Ledrin: building …"
  npx --no-install vite build --logLevel error
  node scripts/build-worker.mjs
  node scripts/compress.mjs
  node scripts/build-server.mjs
  touch dist/built
fi
