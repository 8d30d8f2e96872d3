# What the commands of this project need from the machine. Sourced; `here` is the project's folder.

# Modules are compiled once, also where the environment says that nothing compiled is to be kept: a run starts dozens of
# processes.
unset PYTHONDONTWRITEBYTECODE

say() { printf '%s\n' "$*"; }
stop() { printf '%s\n' "$*" >&2; exit 1; }

# apt_packages PACKAGE...: installs what is missing, as root or with sudo.
apt_packages() {
  local missing=() package
  for package in "$@"; do
    [ "$(dpkg-query -W -f='${Status}' "$package" 2>/dev/null)" = "install ok installed" ] || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  local as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null || stop "These Debian packages are missing, and there is neither root nor sudo to install them: ${missing[*]}. Ask whoever keeps this machine to install them, then start again."
    as_root=(sudo)
  fi
  say "Installing from Debian: ${missing[*]}"
  { "${as_root[@]}" apt-get update -qq && "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null; } \
    || stop "Debian's packages could not be installed: ${missing[*]}. Is the network up, and the package registry reachable? Then start again."
}

# lock_state LOCK: names a lock and its contents.
lock_state() { printf '%s %s' "$1" "$(cat "$here/ops/$1" | sha256sum | cut -c1-16)"; }

# python_environment LOCK: makes .venv and brings it to the state of ops/LOCK. The development lock holds the other one.
python_environment() {
  local lock=$1 venv="$here/.venv" state enough
  state=$(cat "$venv/.state" 2>/dev/null || true)
  for enough in "$lock" requirements-dev.txt; do
    [ "$state" = "$(lock_state "$enough")" ] && return
  done
  local python=/usr/bin/python3
  "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null || python=$(command -v python3 || true)
  [ -n "$python" ] && "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' || stop "Python 3.11 or newer is needed, as Debian 12 has it."
  say "Setting up the Python environment"
  "$python" -m venv "$venv" || stop "The Python environment could not be made in .venv. Is the package python3-venv installed?"
  # A lock names every package with its hash, so nothing is left to resolve; its two halves are unpacked at once.
  local half halves=()
  for half in 0 1; do
    awk -v half=$half '/^[^ #]/ { entry++ } entry % 2 == half' "$here/ops/$lock" >"$venv/.half-$half"
    "$venv/bin/pip" install --quiet --no-deps --no-compile --disable-pip-version-check --require-hashes -r "$venv/.half-$half" 2>"$venv/.pip-errors-$half" &
    halves+=($!)
  done
  for half in 0 1; do
    wait "${halves[$half]}" \
      || { tail -n 5 "$venv/.pip-errors-$half" >&2; stop "The Python packages could not be installed. Is the network up, and the package registry reachable? Then start again."; }
  done
  lock_state "$lock" >"$venv/.state"
}
