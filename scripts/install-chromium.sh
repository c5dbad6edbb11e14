# Installs Debian's Chromium where there is none. CHROMIUM names another one.
set -euo pipefail
if [ -x "${CHROMIUM:-/usr/bin/chromium}" ]; then exit 0; fi
echo "Ledrin: installing Chromium from Debian's packages …"
run=""
[ "$(id -u)" = 0 ] || run="sudo"
$run apt-get update -qq
DEBIAN_FRONTEND=noninteractive $run apt-get install -y -qq chromium >/dev/null
