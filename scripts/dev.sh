# Server through tsx and pages through Vite, both reloading as sources change.
set -euo pipefail
cd "$(dirname "$0")/.."
bash scripts/install.sh
export LEDRIN_DB="${LEDRIN_DB:-data/dev.sqlite}"
export API_PORT="${API_PORT:-4311}"
PORT="$API_PORT" npx --no-install tsx watch server/main.ts &
server=$!
trap 'kill $server' EXIT
echo "Ledrin: pages at http://localhost:${PORT:-4310}, API on port $API_PORT, database $LEDRIN_DB"
npx --no-install vite
