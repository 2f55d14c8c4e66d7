# What ./start and ./test need on a machine that has only Node. Sourced, not run.

fail() { echo "$*" >&2; exit 1; }

need_node() {
  command -v node >/dev/null || fail "Node.js is missing. Undercliff needs version 20.19 or newer."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number)
    process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    fail "Node.js $(node -v) is too old. Undercliff needs version 20.19 or newer."
  command -v npm >/dev/null || fail "npm is missing. It comes with Node.js."
}

# A line that changes whenever the named files do.
stamp_of() {
  find "$@" -type f \( ! -path '*/dist/*' ! -path '*/node_modules/*' \) -print0 2>/dev/null |
    sort -z | xargs -0 sha1sum | sha1sum | cut -d' ' -f1
}

need_packages() {
  local want; want=$(stamp_of package-lock.json package.json ./*/package.json)
  [ -d node_modules ] && [ "$(cat node_modules/.undercliff-stamp 2>/dev/null)" = "$want" ] && return 0
  echo "Installing npm packages …"
  npm ci --no-audit --no-fund --loglevel=error ||
    fail "The npm packages could not be installed. Is the npm registry within reach?"
  echo "$want" > node_modules/.undercliff-stamp
}

apt_install() { # what it is for, package
  command -v apt-get >/dev/null ||
    fail "$1 is missing, and this machine has no apt-get. Install the package $2 by hand."
  [ "$(id -u)" = 0 ] || fail "$1 is missing. Install it with: sudo apt-get install $2"
  echo "Installing $2 …"
  mkdir -p .cache
  { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$2"; } \
    >.cache/apt.log 2>&1 ||
    fail "$2 could not be installed; .cache/apt.log says why. Are Debian's packages within reach?"
}

need_mariadb() { [ -x /usr/sbin/mariadbd ] || command -v mariadbd >/dev/null || apt_install "MariaDB" mariadb-server; }
need_chromium() { [ -x /usr/bin/chromium ] || apt_install "Chromium" chromium; }

need_build() {
  local want; want=$(stamp_of core contract demo server web package-lock.json)
  [ -f server/dist/start.js ] && [ -f web/dist/index.html ] &&
    [ "$(cat server/dist/.stamp 2>/dev/null)" = "$want" ] && return 0
  echo "Building …"
  mkdir -p .cache
  npm run --silent build >.cache/build.log 2>&1 || { cat .cache/build.log >&2; return 1; }
  echo "$want" > server/dist/.stamp
}
