# Runs a command and says every 15 seconds that it is still at it, and for how long: scripts/saying.sh command …
set -uo pipefail
"$@" &
work=$!
trap 'kill "$work" 2>/dev/null' INT TERM
began=$SECONDS
while kill -0 "$work" 2>/dev/null; do
  for _ in $(seq 30); do
    sleep 0.5
    kill -0 "$work" 2>/dev/null || break 2
  done
  echo "Ledrin: still at it, $((SECONDS - began)) seconds so far …"
done
wait "$work"
