# What ./start and ./test need on a machine that has only Node. Sourced, not run.
# Whatever is killed halfway is found and done again by the next run: a stamp is taken away before the
# work that it stands for begins, and put back when that is done.

fail() { echo "$*" >&2; exit 1; }

# Our own server is on this machine, whatever proxy the rest of the world is behind.
export NO_PROXY="127.0.0.1,localhost,::1${NO_PROXY:+,$NO_PROXY}" no_proxy="127.0.0.1,localhost,::1${no_proxy:+,$no_proxy}"

need_node() {
  command -v node >/dev/null || fail "Node.js is missing. Undercliff needs version 20.19 or newer."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number)
    process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    fail "Node.js $(node -v) is too old. Undercliff needs version 20.19 or newer."
  command -v npm >/dev/null || fail "npm is missing. It comes with Node.js."
}

# Runs a command while no other start or test of this clone prepares anything; what a killed one left
# running is waited for.
alone() {
  mkdir -p .cache 2>/dev/null && : >>.cache/prepare.lock 2>/dev/null ||
    fail "$PWD cannot be written to, or its disk is full. Undercliff installs and builds there."
  command -v flock >/dev/null || fail "flock is missing. Install it with: apt-get install util-linux"
  (
    flock --nonblock 9 || { echo "Another start is preparing this clone; waiting for it …"; flock 9; }
    "$@"
  ) 9>>.cache/prepare.lock
}

# A line that changes whenever the named files do.
stamp_of() {
  find "$@" -type f \( ! -path '*/dist/*' ! -path '*/node_modules/*' \) -print0 2>/dev/null |
    sort -z | xargs -0 sha1sum | sha1sum | cut -d' ' -f1
}

packages_are() { [ -d node_modules ] && [ "$(cat node_modules/.undercliff-stamp 2>/dev/null)" = "$1" ]; }
need_packages() {
  local want; want=$(stamp_of package-lock.json package.json ./*/package.json)
  packages_are "$want" || alone install_packages "$want"
}
install_packages() {
  packages_are "$1" && return 0
  [ -d node_modules ] && [ ! -f node_modules/.undercliff-stamp ] &&
    echo "The last installation was cut short, or is of another version; it is done anew."
  echo "Installing npm packages …"
  rm -f node_modules/.undercliff-stamp
  npm ci --no-audit --no-fund --loglevel=error ||
    fail "The npm packages could not be installed. Is the npm registry within reach, and is there room on the disk?"
  echo "$1" > node_modules/.undercliff-stamp
}

apt_install() { # what it is for, package
  command -v apt-get >/dev/null ||
    fail "$1 is missing, and this machine has no apt-get. Install the package $2 by hand."
  [ "$(id -u)" = 0 ] || fail "$1 is missing. Install it with: sudo apt-get install $2"
  echo "Installing $2 …"
  # What a killed installation left half done is finished first; one that still runs is waited for.
  {
    export DEBIAN_FRONTEND=noninteractive
    local wait="-o DPkg::Lock::Timeout=600"
    [ -z "$(dpkg --audit 2>&1)" ] || { dpkg --configure -a && apt-get $wait -f install -y -qq; } || true
    apt-get $wait update -qq && apt-get $wait install -y -qq --reinstall --no-install-recommends "$2"
  } >.cache/apt.log 2>&1 ||
    fail "$2 could not be installed; .cache/apt.log says why. Are Debian's packages within reach, and is there room on the disk?"
}

# A program counts as there when it runs: one that was unpacked and no more does not.
runs() { command -v "$1" >/dev/null && "$1" --version >/dev/null 2>&1; }
has_mariadb() {
  local PATH="$PATH:/usr/sbin:/usr/local/sbin"
  runs mariadbd && { command -v mariadb-install-db || command -v mysql_install_db; } >/dev/null && runs mariadb-dump
}
install_mariadb() { has_mariadb || apt_install "MariaDB" mariadb-server; }
need_mariadb() { has_mariadb || alone install_mariadb; }
# Makes the certificates of a secure address.
has_openssl() { command -v openssl >/dev/null && openssl version >/dev/null 2>&1; }
install_openssl() { has_openssl || apt_install "openssl" openssl; }
need_openssl() { has_openssl || alone install_openssl; }
# A proxy to go through, and a browser's store of what it trusts: for tests alone.
has_nginx() { local PATH="$PATH:/usr/sbin"; command -v nginx >/dev/null && nginx -v >/dev/null 2>&1; }
install_nginx() { has_nginx || apt_install "nginx" nginx-light; }
need_nginx() { has_nginx || alone install_nginx; }
has_certutil() { command -v certutil >/dev/null; }
install_certutil() { has_certutil || apt_install "certutil" libnss3-tools; }
need_certutil() { has_certutil || alone install_certutil; }
# Chromium without windows takes a fifth less time for the same; the one with windows does as well.
has_chromium_shell() { [ -x /usr/bin/chromium-headless-shell ] && runs /usr/bin/chromium-headless-shell; }
has_chromium() { [ -x /usr/bin/chromium ] && runs /usr/bin/chromium; }
install_chromium() {
  has_chromium_shell && return 0
  (apt_install "Chromium without windows" chromium-headless-shell) && return 0
  if has_chromium; then echo "The browser tests go on in the Chromium that is here, and take longer."
  else apt_install "Chromium" chromium; fi
}
need_chromium() { has_chromium_shell || alone install_chromium; }

build_is() {
  [ -f server/dist/start.js ] && [ -f server/dist/worker.js ] && [ -f web/dist/index.html ] &&
    [ "$(cat server/dist/.stamp 2>/dev/null)" = "$1" ]
}
need_build() {
  local want; want=$(stamp_of core contract demo server web package-lock.json)
  build_is "$want" || alone build "$want"
}
build() {
  build_is "$1" && return 0
  echo "Building …"
  rm -f server/dist/.stamp
  npm run --silent build >.cache/build.log 2>&1 || { cat .cache/build.log >&2; return 1; }
  echo "$1" > server/dist/.stamp
}

# Where tests and benches keep what they throw away, databases too: in memory where there is room. However the run
# ends, what still runs there is ended, and all of it goes.
scratch_folder() {
  local room; room=$(df -Pk /dev/shm 2>/dev/null | awk 'NR == 2 { print $4 }') || true
  local where=/tmp
  [ "${room:-0}" -gt 4000000 ] && [ -w /dev/shm ] && where=/dev/shm
  SCRATCH=$(mktemp -d "$where/undercliff-XXXXXX") || fail "Nothing can be written to $where."
  export TMPDIR=$SCRATCH
  trap clear_scratch EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM
}
# Runs a command that is ended with this shell, and with what started the shell: npm is ended without a word to it.
in_scratch() {
  "$@" & CHILD=$!
  while kill -0 "$CHILD" 2>/dev/null; do
    kill -0 "$PPID" 2>/dev/null || exit 143
    sleep 1
  done
  wait "$CHILD"
}
clear_scratch() {
  local process
  [ -z "${CHILD:-}" ] || kill "$CHILD" 2>/dev/null || true
  for process in /proc/[0-9]*; do
    if { tr '\0' ' ' <"$process/cmdline"; } 2>/dev/null | grep -q -- "--datadir=$SCRATCH/"; then
      kill -KILL "${process#/proc/}" 2>/dev/null || true
    fi
  done
  rm -rf "$SCRATCH"
}
