#!/usr/bin/env bash
# Tries the product on new machines: minimal Debian systems, each made by debootstrap
# in a folder, in which a clone of this checkout's last commit runs "demo" and "test". Needs root.
set -euo pipefail

root=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
folder=${IRON_SIEVE_FRESH:-/var/tmp/iron-sieve-fresh}
mirror=${IRON_SIEVE_MIRROR:-}
port=18080
page_minutes=30
installs=8 # an ordinary user is told of one thing after another
run_tests=true
users=(maker root)
report=()

say() { printf '%s\n' "$*" >&2; }
fail() { say "iron-sieve fresh: $*"; exit 2; }

help() {
  cat <<'EOF'
Usage: ./iron-sieve fresh [--no-tests] [--root-only] [RELEASE…]

  Makes minimal Debian systems with debootstrap (trixie and bookworm if none is named), runs
  "./iron-sieve demo" of the last commit in them until its page answers, as root and as an ordinary
  user for whom root installs what the script names, then "./iron-sieve test", and prints the times.
  Needs root. Each system is deleted afterwards. --root-only leaves the ordinary user out.

Settings, as environment variables:
  IRON_SIEVE_FRESH       where the systems are made (/var/tmp/iron-sieve-fresh)
  IRON_SIEVE_MIRROR      address of Debian's packages (the default of debootstrap)
  IRON_SIEVE_FRESH_JDK   folder of an unpacked JDK, put below /usr/lib/jvm of a system whose packages
                         have none that is new enough
  IRON_SIEVE_FRESH_NODE  folder of an unpacked Node.js, put in front of PATH there
EOF
}

# Runs a command in a system, in process and mount namespaces that end with it, in place of this
# process: (inside SYSTEM USER COMMAND…)
inside() {
  local system=$1 user=$2
  shift 2
  exec unshare --mount --pid --fork --kill-child -- bash -c '
    mount -t proc proc "$0/proc" && mount --rbind /dev "$0/dev" && mount --make-rslave "$0/dev"
    user=$1; shift
    chroot "$0" setpriv --reuid="$user" --regid="$user" --init-groups env -i \
      HOME="$(chroot "$0" sh -c "echo ~$user")" LANG=C.UTF-8 IRON_SIEVE_PORT="$IRON_SIEVE_PORT" \
      NODE_EXTRA_CA_CERTS=/etc/ssl/certs/ca-certificates.crt \
      PATH=/opt/node/bin:/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin "$@"
    exit $? # this shell stays, as the one whose end ends all: a change of user would forget that
  ' "$system" "$user" "$@"
}

# Makes a minimal system with a clone of the checkout: make_system RELEASE FOLDER
make_system() {
  local release=$1 system=$2
  rm -rf "$system"
  mkdir -p "$system"
  debootstrap --variant=minbase --include=ca-certificates "$release" "$system" ${mirror:+"$mirror"} >"$system.log" 2>&1 \
    || { tail -5 "$system.log" >&2; fail "debootstrap failed; the whole output is in $system.log"; }
  cp -L /etc/resolv.conf "$system/etc/resolv.conf"
  # This machine may reach the package registries through something whose certificate it trusts.
  if compgen -G "/usr/local/share/ca-certificates/*.crt" >/dev/null; then
    cp /usr/local/share/ca-certificates/*.crt "$system/usr/local/share/ca-certificates/"
    chroot "$system" update-ca-certificates >>"$system.log" 2>&1
  fi
  chroot "$system" useradd --create-home maker
  git clone --quiet "$root" "$system/home/maker/iron-sieve"
  git clone --quiet "$root" "$system/root/iron-sieve"
  chroot "$system" chown -R maker:maker /home/maker/iron-sieve
}

# Follows the advice for a system whose packages are too old; fails if nothing was given for it.
bring_archives() {
  local system=$1 done=false
  if [ -n "${IRON_SIEVE_FRESH_JDK:-}" ] && [ ! -e "$system/usr/lib/jvm/unpacked" ]; then
    mkdir -p "$system/usr/lib/jvm"
    cp -rL "$IRON_SIEVE_FRESH_JDK" "$system/usr/lib/jvm/unpacked"
    done=true
  fi
  if [ -n "${IRON_SIEVE_FRESH_NODE:-}" ] && [ ! -e "$system/opt/node" ]; then
    cp -r "$IRON_SIEVE_FRESH_NODE" "$system/opt/node"
    done=true
  fi
  [ "$done" = true ]
}

page_answers() {
  curl --silent --fail --max-time 5 "http://127.0.0.1:$IRON_SIEVE_PORT/" 2>/dev/null | grep -q '<div id="root"'
}

# Ends a system's command, and with it all that it started. unshare passes no gentler signal on.
end() {
  kill -KILL "$1"
  wait "$1" 2>/dev/null || true
}

# Starts the demo and waits for its page: try_demo SYSTEM USER; 0 page answered, 1 it stopped before
try_demo() {
  local system=$1 user=$2 home log started pid
  if page_answers; then fail "another demo answers on port $IRON_SIEVE_PORT already"; fi
  home=$([ "$user" = root ] && echo /root || echo "/home/$user")
  log=$system.$user.log
  (inside "$system" "$user" bash -c "cd $home/iron-sieve && exec ./iron-sieve demo" >"$log" 2>&1) &
  pid=$!
  started=$SECONDS
  while kill -0 "$pid" 2>/dev/null; do
    if page_answers; then
      end "$pid"
      return 0
    fi
    if [ $((SECONDS - started)) -gt $((page_minutes * 60)) ]; then
      end "$pid"
      fail "no page after $page_minutes minutes; see $log"
    fi
    sleep 1
  done
  wait "$pid" || true
  return 1
}

# Runs the demo as a person would, doing what it asks for: demo RELEASE SYSTEM USER
demo() {
  local release=$1 system=$2 user=$3 round wanted began=$SECONDS
  for ((round = 1; round <= installs; round++)); do
    if try_demo "$system" "$user"; then
      report+=("$release, $user: the page of the demo answered after $((SECONDS - began)) s, attempt $round")
      return 0
    fi
    wanted=$(sed -n 's/.*sudo apt-get install \(.*\))$/\1/p' "$system.$user.log" | tail -1)
    if [ -n "$wanted" ] && [ "$user" != root ]; then
      say "$release, $user: is told to install $wanted"
      # shellcheck disable=SC2086 # names of packages
      (inside "$system" root bash -c "apt-get update && DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends $wanted" \
        >"$system.apt.log" 2>&1) || fail "what it told to install could not be; see $system.apt.log"
    elif ! bring_archives "$system"; then
      report+=("$release, $user: stopped: $(grep -A3 'iron-sieve:' "$system.$user.log" | tr '\n' ' ')")
      return 1
    fi
  done
  report+=("$release, $user: no page after $installs attempts")
  return 1
}

tests() {
  local release=$1 system=$2 began=$SECONDS
  if (inside "$system" root bash -c "cd /root/iron-sieve && exec ./iron-sieve test" >"$system.test.log" 2>&1); then
    report+=("$release, root: test passed after $((SECONDS - began)) s")
    return 0
  fi
  report+=("$release, root: test failed; see $system.test.log")
  return 1
}

main() {
  local release user system status=0
  local releases=()
  while [ $# -gt 0 ]; do
    case $1 in
      --help | -h) help && exit 0 ;;
      --no-tests) run_tests=false ;;
      --root-only) users=(root) ;;
      -*) help >&2 && fail "there is no option $1" ;;
      *) releases+=("$1") ;;
    esac
    shift
  done
  [ ${#releases[@]} -gt 0 ] || releases=(trixie bookworm)
  [ "$(id -u)" -eq 0 ] || fail "needs root, because debootstrap does"
  for program in debootstrap curl git; do
    command -v "$program" >/dev/null || fail "$program is missing (apt-get install $program)"
  done
  if (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; then fail "port $port, on which the demos are tried, is taken"; fi
  export IRON_SIEVE_PORT=$port
  mkdir -p "$folder"
  for release in "${releases[@]}"; do
    for user in "${users[@]}"; do
      system=$folder/$release
      say "$release, $user: making a minimal system ..."
      make_system "$release" "$system"
      say "$release, $user: demo ..."
      if ! demo "$release" "$system" "$user"; then
        status=1
      elif [ "$user" = root ] && [ "$run_tests" = true ]; then
        say "$release: test ..."
        tests "$release" "$system" || status=1
      fi
      rm -rf "$system"
    done
  done
  printf '%s\n' "${report[@]}"
  exit $status
}

main "$@"
