# What a fresh machine is missing, installed. Sourced by ./start and ./check from the project's folder.

fail() {
  echo "inventario: $1" >&2
  exit "${failing_with:-1}"
}

need_node() {
  command -v node >/dev/null 2>&1 || fail "Node.js 20.19 or newer is missing; install it and run this again."
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    fail "Node.js $(node -v) is too old; 20.19 or newer is needed."
  command -v npm >/dev/null 2>&1 || fail "npm is missing; install it beside Node.js and run this again."
}

# run_ended COMMAND...: runs it, and ends it too when this start is ended: nothing goes on installing behind somebody's back.
run_ended() {
  "$@" &
  child=$!
  trap 'trap - INT TERM HUP; kill "$child" 2>/dev/null; wait "$child"; exit 143' INT TERM HUP
  wait "$child"
  status=$?
  trap - INT TERM HUP
  return "$status"
}

# need_program PROGRAM DEBIAN-PACKAGE
need_program() {
  command -v "$1" >/dev/null 2>&1 && return 0
  command -v apt-get >/dev/null 2>&1 || fail "$1 is missing and there is no apt-get to install it with; install $2 by hand."
  if [ "$(id -u)" = 0 ]; then as_root=""; elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as_root="sudo -n"; else
    fail "$1 is missing; install it as root: apt-get install $2"
  fi
  echo "Installing $2 ..."
  # An installation that was cut off before is finished first.
  $as_root dpkg --configure -a >/dev/null 2>&1
  { run_ended $as_root apt-get update -qq && run_ended $as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$2"; } >/tmp/inventario-apt.$$ 2>&1 ||
    fail "$2 could not be installed: $(tail -n 1 /tmp/inventario-apt.$$)"
  rm -f /tmp/inventario-apt.$$
  command -v "$1" >/dev/null 2>&1 || fail "$1 is still missing after installing $2."
}

need_packages() {
  wanted=$(cksum <package-lock.json)
  [ "$(cat node_modules/.inventario 2>/dev/null)" = "$wanted" ] && [ -f cli/dist/inventario.mjs ] && return 0
  [ -w . ] || fail "The folder $(pwd) cannot be written; the packages have to be installed in it."
  echo "Installing packages ..."
  run_ended npm ci --no-audit --no-fund --loglevel=error >/tmp/inventario-npm.$$ 2>&1 || fail "npm ci failed: $(tail -n 3 /tmp/inventario-npm.$$ | tr '\n' ' ')"
  rm -f /tmp/inventario-npm.$$
  echo "$wanted" >node_modules/.inventario
}
