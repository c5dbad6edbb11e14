# Installs what is missing: packages when the lock file has changed, and says so.
set -euo pipefail
cd "$(dirname "$0")/.."
stamp=node_modules/.ledrin-installed
sum=$(sha256sum package-lock.json | cut -d' ' -f1)
if [ ! -f "$stamp" ] || [ "$(cat "$stamp")" != "$sum" ]; then
  echo "Ledrin: installing packages (some minutes the first time; the database engine is compiled) …"
  npm ci --include=dev --no-audit --no-fund --loglevel=error
  echo "$sum" > "$stamp"
fi
