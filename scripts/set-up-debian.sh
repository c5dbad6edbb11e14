# Sets Ledrin up as a service on a Debian machine, or brings one that is there to this version. Run as root, from a checkout:
#   bash scripts/set-up-debian.sh https://books.example.com /etc/ssl/books.pem /etc/ssl/books.key
# The address people type, the certificate and its key. Without them Ledrin answers on this machine only.
# docs/running.md says what it does, and what to do next.
set -euo pipefail
cd "$(dirname "$0")/.."
address=${1:-}
certificate=${2:-}
key=${3:-}
home=/opt/ledrin
data=/var/lib/ledrin
say() { echo "Ledrin: $1"; }
fail() { echo "$1" >&2; exit 1; }

[ "$(id -u)" = 0 ] || fail 'Run this as root: sudo bash scripts/set-up-debian.sh …'
[ -f /etc/debian_version ] || fail 'This is not Debian; docs/running.md says step by step what to do'
if [ -n "$address" ]; then
  [[ "$address" =~ ^https://[a-z0-9.-]+$ ]] || fail "\"$address\": expected an address such as https://books.example.com"
  for file in "$certificate" "$key"; do [ -r "$file" ] || fail "\"$file\": expected the file of the certificate, then that of its key"; done
fi

say 'packages …'
missing=()
command -v node >/dev/null && command -v npm >/dev/null || missing+=(nodejs npm libnode-dev)
command -v g++ >/dev/null && command -v make >/dev/null && command -v python3 >/dev/null || missing+=(build-essential python3)
[ -z "$address" ] || command -v nginx >/dev/null || missing+=(nginx-light)
if [ ${#missing[@]} -gt 0 ]; then
  apt-get update -qq
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
fi
node -e 'process.exit(Number(process.versions.node.split(".")[0]) < 20 ? 1 : 0)' || fail "Node.js $(node --version) is here, and 20 or newer is needed: Debian 13 has it"

# The database engine is compiled against the headers of this Node.js, where they are here; else they are fetched.
if [ -f /usr/include/node/node_version.h ]; then export npm_config_nodedir=/usr; fi

say 'user and folders …'
id ledrin >/dev/null 2>&1 || useradd --system --home "$data" --shell /usr/sbin/nologin ledrin
install -d -m 0700 -o ledrin -g ledrin "$data"

# It is stopped before its files are changed; what is being saved is finished first.
running() { [ -d /run/systemd/system ]; }
if running && systemctl is-active --quiet ledrin; then systemctl stop ledrin; fi

say "program, to $home …"
if [ "$(pwd -P)" != "$home" ]; then
  mkdir -p "$home"
  tar --exclude=./node_modules --exclude=./dist --exclude=./data --exclude=./.git -cf - . | tar -xf - -C "$home" --no-same-owner
fi
cd "$home"
bash scripts/install.sh
bash scripts/build.sh

say 'service …'
install -m 0644 scripts/ledrin.service /etc/systemd/system/ledrin.service
if [ ! -f /etc/ledrin.env ]; then
  (umask 077; if [ -n "$address" ]; then printf 'LEDRIN_ADDRESS=%s\nTRUST_PROXY=1\n' "$address"; fi > /etc/ledrin.env)
fi
if [ -n "$address" ]; then
  sed -e "s#books.example.com#${address#https://}#g" -e "s#/etc/ssl/books.pem#$certificate#" -e "s#/etc/ssl/books.key#$key#" \
    scripts/nginx.conf > /etc/nginx/sites-available/ledrin
  ln -sf /etc/nginx/sites-available/ledrin /etc/nginx/sites-enabled/ledrin
  nginx -t -q
fi
if running; then
  systemctl daemon-reload
  systemctl enable --quiet --now ledrin
  [ -z "$address" ] || systemctl reload-or-restart nginx
  for _ in $(seq 60); do node -e 'fetch("http://127.0.0.1:4310/api/health").then((it) => process.exit(it.ok ? 0 : 1), () => process.exit(1))' && break; sleep 1; done
  node -e 'fetch("http://127.0.0.1:4310/api/health").then((it) => process.exit(it.ok ? 0 : 1), () => process.exit(1))' || fail 'It does not answer; journalctl -u ledrin says why'
  say 'it runs.'
else
  say 'systemd does not run here; start it by: systemctl enable --now ledrin'
fi
say 'The first owner is made on this machine: ssh -L 4310:localhost:4310 to it, and open http://localhost:4310'
