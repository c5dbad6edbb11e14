# Installs, builds, makes the demo database where there is none, and serves it. --reset starts the demo over.
set -euo pipefail
cd "$(dirname "$0")/.."
bash scripts/saying.sh bash scripts/install.sh
bash scripts/saying.sh bash scripts/build.sh
export LEDRIN_DB="${LEDRIN_DB:-data/demo.sqlite}"
# Each role has a user of the sample company, who signs in by one press.
export LEDRIN_DEMO="${LEDRIN_DEMO:-1}"
if [ "${1:-}" = "--reset" ]; then
  echo "Ledrin: starting the demo over"
  rm -f "$LEDRIN_DB" "$LEDRIN_DB-wal" "$LEDRIN_DB-shm"
fi
if [ ! -f "$LEDRIN_DB" ]; then
  echo "Ledrin: importing the sample company into $LEDRIN_DB …"
  bash scripts/saying.sh node dist/server/cli.mjs import demo/book --db "$LEDRIN_DB"
fi
echo "Ledrin: serving; stop it with Ctrl C"
exec node dist/server/main.mjs
