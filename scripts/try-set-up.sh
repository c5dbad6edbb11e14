# Tries scripts/set-up-debian.sh in a Debian of its own: an empty root made by debootstrap, set up from this checkout, then asked
# through its web server over TLS, and upgraded. Needs root, debootstrap and some ten minutes: npm run try:set-up
set -euo pipefail
cd "$(dirname "$0")/.."
command -v debootstrap >/dev/null || { echo 'debootstrap is missing: apt-get install debootstrap' >&2; exit 1; }
root=$(mktemp -d)
chmod 755 "$root"
started=()
end() {
  for pid in "${started[@]}"; do kill "$pid" 2>/dev/null || true; done
  sleep 2
  umount -l "$root/proc" "$root/dev" 2>/dev/null || true
  rm -rf --one-file-system "$root"
}
trap end EXIT
! curl -fs http://127.0.0.1:4310/api/health >/dev/null || { echo 'Something serves on port 4310 already; end it first' >&2; exit 1; }
clean=(env -i HOME=/srv PATH=/usr/sbin:/usr/bin:/sbin:/bin NODE_EXTRA_CA_CERTS=/etc/ssl/certs/ca-certificates.crt chroot "$root")
inside() { "${clean[@]}" "$@"; }
expect() { if [ "$2" = "$3" ]; then echo "ok: $1"; else echo "not ok: $1: expected $2, found $3"; exit 1; fi; }

debootstrap --variant=minbase --include=ca-certificates,curl,openssl trixie "$root" >/dev/null
cp /etc/resolv.conf "$root/etc/"
# Certificates and settings by which this machine reaches its packages.
cp /usr/local/share/ca-certificates/*.crt "$root/usr/local/share/ca-certificates/" 2>/dev/null || true
settings=$(npm config get userconfig 2>/dev/null)
[ ! -f "$settings" ] || grep -v nodedir "$settings" > "$root/srv/.npmrc"
mount -t proc proc "$root/proc"
mount --bind /dev "$root/dev"
inside update-ca-certificates >/dev/null 2>&1
mkdir "$root/srv/ledrin"
git ls-files -z | xargs -0 tar -cf - | tar -xf - -C "$root/srv/ledrin"
inside openssl req -x509 -newkey rsa:2048 -nodes -subj /CN=books.example.com -days 2 -keyout /etc/ssl/books.key -out /etc/ssl/books.pem 2>/dev/null

set_up() { inside bash /srv/ledrin/scripts/set-up-debian.sh https://books.example.com /etc/ssl/books.pem /etc/ssl/books.key; }
set_up
expect 'the data is the user’s alone' '700 ledrin' "$(inside stat -c '%a %U' /var/lib/ledrin)"
expect 'the settings are root’s alone' '600 root' "$(inside stat -c '%a %U' /etc/ledrin.env)"

# What the service and the web server's own do, without systemd.
inside nginx
started+=("$(cat "$root/run/nginx.pid")")
serve() {
  # Root reads the settings, as systemd does; the program runs as its user.
  # shellcheck disable=SC2046
  (exec "${clean[@]}" env $(xargs < "$root/etc/ledrin.env") NODE_ENV=production PORT=4310 LEDRIN_DB=/var/lib/ledrin/ledrin.sqlite \
    setpriv --reuid=ledrin --regid=ledrin --clear-groups bash -c 'cd /opt/ledrin && exec node dist/server/main.mjs') &
  served=$!
  started+=("$served")
  for _ in $(seq 60); do inside curl -fs http://127.0.0.1:4310/api/health >/dev/null && return; sleep 1; done
}
ask() { inside curl -ks -o /dev/null -w "$1" --resolve books.example.com:443:127.0.0.1 "${@:3}" "https://books.example.com$2"; }
serve
expect 'it answers over TLS' 200 "$(ask '%{http_code}' /api/health)"
expect 'nobody comes in without signing in' 401 "$(ask '%{http_code}' '/api/jobs?asOf=2031-04')"
expect 'browsers stay with TLS' yes "$(inside curl -ksI --resolve books.example.com:443:127.0.0.1 https://books.example.com/ | grep -qi '^strict-transport-security' && echo yes)"
expect 'the first owner is not made from outside' 403 "$(ask '%{http_code}' /api/first-owner -X POST -H 'Content-Type: application/json' -d '{"name":"Eve","email":"eve@x.example","password":"four words in a row"}')"
expect 'but on the machine itself' 201 "$(inside curl -s -o /dev/null -w '%{http_code}' -X POST -H 'Content-Type: application/json' -d '{"name":"Ann","email":"ann@x.example","password":"four words in a row"}' http://localhost:4310/api/first-owner)"
kill "$served"
wait "$served" 2>/dev/null || true

echo 'LOG_LEVEL=info' >> "$root/etc/ledrin.env"
set_up
expect 'an upgrade leaves the settings' 1 "$(grep -c LOG_LEVEL "$root/etc/ledrin.env")"
serve
expect 'and the data' 'false' "$(inside curl -s http://127.0.0.1:4310/api/session | inside node -p 'JSON.parse(require("fs").readFileSync(0)).needsOwner')"
echo 'The set-up works in a clean Debian'
