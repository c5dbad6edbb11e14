# Everything that must hold: lint and import rules, types, unit and server tests, the journeys in a browser.
# Ends with one plain line: N passed, N failed. What hangs is ended after 45 and 35 minutes, many times what it takes, and has failed.
set -uo pipefail
cd "$(dirname "$0")/.."
bash scripts/install.sh || exit 1
bash scripts/install-chromium.sh || exit 1
logs=$(mktemp -d)
trap 'rm -rf "$logs"' EXIT
passed=0
failed=0
step() {
  echo "Ledrin: $1 …"
  shift
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); fi
}
step "lint and import rules" npm run --silent lint
step "types" npm run --silent typecheck
echo "Ledrin: unit and server tests …"
NODE_OPTIONS='--experimental-vm-modules --no-warnings' timeout --kill-after=30 2700 npx --no-install jest --json --outputFile="$logs/jest.json" || true
node scripts/count-tests.mjs jest "$logs/jest.json" > "$logs/counts" || echo "0 1" > "$logs/counts"
read -r p f < "$logs/counts"; passed=$((passed + p)); failed=$((failed + f))
step "build" bash scripts/build.sh
echo "Ledrin: journeys in the browser …"
PLAYWRIGHT_JSON_OUTPUT_NAME="$logs/e2e.json" timeout --kill-after=30 2100 npx --no-install playwright test --reporter=list,json || true
node scripts/count-tests.mjs playwright "$logs/e2e.json" > "$logs/counts" || echo "0 1" > "$logs/counts"
read -r p f < "$logs/counts"; passed=$((passed + p)); failed=$((failed + f))
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
