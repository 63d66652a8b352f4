# Shared by the commands of ./awlsmith. Sourced by bash; expects $root.
set -euo pipefail

say() { printf '%s\n' "$*" >&2; }
fail() { say "awlsmith: $*"; exit 1; }

home="${AWLSMITH_HOME:-$root/.awlsmith}"

# --- what the command starts ends with it -----------------------------------------------------------------------------

# Put before whatever runs beside this script: the kernel ends it when the script ends, however that ends.
dies_with_us=(setpriv --pdeathsig TERM)
child=

# Runs a command and waits for it, so that signals reach us at once and not when it is done. It has a session of its own,
# whose processes all end together.
run_child() {
  setsid "${dies_with_us[@]}" "$@" &
  child=$!
  local code=0
  wait "$child" || code=$?
  child=
  return "$code"
}

# Ends the command that runs, and the database last.
end_all() {
  trap '' INT TERM HUP
  if [ -n "$child" ]; then
    kill -TERM -- "-$child" 2>/dev/null || true
    wait "$child" 2>/dev/null || true
    child=
  fi
  db_down
}

end_with_us() {
  trap 'end_all; exit 130' INT
  trap 'end_all; exit 143' TERM
  trap 'end_all; exit 129' HUP
  trap end_all EXIT
}

# --- the data folder --------------------------------------------------------------------------------------------------

# What lies in it is the owner's alone. The database's user may pass through it, where that is another one than we are.
own_folder() {
  (umask 077; mkdir -p "$home") || fail "the folder $home cannot be made; set AWLSMITH_HOME to one you may write to"
  [ -O "$home" ] || fail "the folder $home belongs to somebody else; set AWLSMITH_HOME to one of your own"
  if [ "$(id -u)" -eq 0 ] && getent group mysql >/dev/null; then
    chgrp mysql "$home"
    chmod 710 "$home"
  else
    chmod 700 "$home"
  fi
  if [ -d "$home/media" ]; then chmod 700 "$home/media"; fi
  local log
  for log in "$home"/*.log*; do
    if [ -f "$log" ]; then chmod 600 "$log"; fi
  done
}

# A temporary folder for this process alone; those that killed ones left are swept.
own_temporary() {
  local old
  for old in "$home"/tmp/*; do
    if [ -d "$old" ] && ! kill -0 "${old##*/}" 2>/dev/null; then rm -rf "$old"; fi
  done
  (umask 077; mkdir -p "$home/tmp/$$")
  java_flags+=("-Djava.io.tmpdir=$home/tmp/$$")
}

# Whether this is what `pack` made: there is nothing to build, and no sources.
is_packed() { [ -e "$root/packed" ]; }

# Finds Java 25 or later, with a compiler where there is something to build: JAVA_HOME, the path, then where Debian and others put it.
find_java() {
  local candidate key value wanted=javac
  if is_packed; then wanted=java; fi
  for candidate in "${JAVA_HOME:-}" "$(dirname "$(dirname "$(readlink -f "$(command -v "$wanted" || true)")")" 2>/dev/null)" /usr/lib/jvm/*; do
    # without JAVA_HOME the first is empty, and /bin is where the system has its own
    { [ -n "$candidate" ] && [ -x "$candidate/bin/$wanted" ]; } || continue
    local version=
    # a file tells it at once, where asking starts each of them
    if [ -r "$candidate/release" ]; then
      while IFS== read -r key value; do
        if [ "$key" = JAVA_VERSION ]; then version="${value//\"/}" version="${version%%[.+-]*}"; fi
      done <"$candidate/release"
    else
      # with options from the environment Java first says that it has picked them up
      version=$("$candidate/bin/$wanted" --version 2>&1 | sed -n 's/^\(javac\|openjdk\|java\) \([0-9]*\).*/\2/p' | head -n 1)
    fi
    if [ "${version:-0}" -ge 25 ]; then
      export JAVA_HOME="$candidate"
      export PATH="$candidate/bin:$PATH"
      return
    fi
  done
  fail "no JDK 25 or later was found; install one (for example Debian's openjdk-25-jdk or Temurin 25) and set JAVA_HOME to it"
}

# Installs Debian packages whose commands are missing: need COMMAND PACKAGE [COMMAND PACKAGE ...]
need() {
  local missing=()
  while [ $# -gt 1 ]; do
    command -v "$1" >/dev/null 2>&1 || missing+=("$2")
    shift 2
  done
  [ ${#missing[@]} -eq 0 ] && return
  say "installing from Debian's packages: ${missing[*]}"
  local as=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null 2>&1 || fail "missing: ${missing[*]}; install them as root with apt-get install"
    as=(sudo)
  fi
  local log
  log=$(mktemp)
  "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update >"$log" 2>&1 || true
  "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}" >>"$log" 2>&1 \
    || { tail -n 5 "$log" >&2; fail "Debian's packages could not be installed: ${missing[*]}"; }
  rm -f "$log"
}

free_disk() { # free_disk FOLDER MEGABYTES
  local free
  mkdir -p "$1" || fail "the folder $1 cannot be made; set AWLSMITH_HOME to one you may write to"
  free=$(df -Pm "$1" | awk 'NR == 2 { print $4 }')
  [ "$free" -ge "$2" ] || fail "the disk is too full: $free MB are free under $1, $2 MB are needed; free some, or set AWLSMITH_HOME to another disk"
}

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() { # free_port FIRST
  local port="$1"
  while port_taken "$port"; do port=$((port + 1)); done
  echo "$port"
}

# --- the private MariaDB: own folder, own port on loopback, never as root ---------------------------------------------

# Words put before a command that must run as the database's owner; an array and not a function, so that a command sent
# to the background with it is the program itself, whose id can be kept and stopped.
db_as=()
if [ "$(id -u)" -eq 0 ]; then db_as=(setpriv --reuid mysql --regid mysql --init-groups); fi

# Where a database may lie: in the wanted folder if its owner can get there, else under /var/tmp.
db_place() {
  own_folder
  mkdir -p "$1"
  if [ "$(id -u)" -eq 0 ]; then chown mysql:mysql "$1"; fi
  if "${db_as[@]}" test -x "$1"; then echo "$1"; return; fi
  local other
  other="/var/tmp/awlsmith-$(id -u)-$(printf '%s' "$1" | cksum | cut -d' ' -f1)"
  # the folder's parent is open to all: one that somebody else put there is not used
  if [ -L "$other" ] || { [ -e "$other" ] && [ ! -O "$other" ] && [ "$(stat -c %U "$other")" != mysql ]; }; then
    fail "$other belongs to somebody else; set AWLSMITH_HOME to a folder that the database's user may enter"
  fi
  mkdir -p "$other"
  chmod 711 "$other"
  echo "$other"
}

# Starts it and sets DB_PORT, DB_PASSWORD, DB_PID. db_up FOLDER DATABASE...
db_up() {
  local place dir log waited=0
  place=$(db_place "$1"); shift
  dir="$place/data"
  log="$place/mariadb.log"
  local socket="$place/socket"
  [ ${#socket} -lt 100 ] || socket="/tmp/awlsmith-db-$(printf '%s' "$place" | cksum | cut -d' ' -f1).socket"
  local old
  old=$(cat "$place/pid" 2>/dev/null || true)
  if [ -n "$old" ] && [ "$(cat "/proc/$old/comm" 2>/dev/null)" = mariadbd ]; then
    say "stopping a database left running from before"
    kill "$old"
    while kill -0 "$old" 2>/dev/null; do sleep 0.1; done
  fi
  if [ "$(id -u)" -eq 0 ]; then chown mysql:mysql "$place"; fi
  if [ ! -d "$dir/mysql" ]; then
    "${db_as[@]}" rm -rf "$dir"
    "${db_as[@]}" mariadb-install-db --no-defaults --datadir="$dir" --skip-test-db --auth-root-authentication-method=socket \
      --auth-root-socket-user="$(id -un)" >"$log.install" 2>&1 || { tail -n 5 "$log.install" >&2; fail "the database could not be set up in $place"; }
  fi
  if [ ! -s "$place/password" ]; then
    (umask 077; head -c 24 /dev/urandom | base64 | tr -d '+/=\n' >"$place/password")
  fi
  DB_PASSWORD=$(cat "$place/password")
  DB_PORT=$(free_port "${DB_FIRST_PORT:-33960}")
  # in a session of its own: Ctrl-C is for us, who then stop the server first and the database last
  setsid "${db_as[@]}" "${dies_with_us[@]}" mariadbd --no-defaults --datadir="$dir" --socket="$socket" --port="$DB_PORT" --bind-address=127.0.0.1 \
    --pid-file="$place/pid" --log-error="$log" --skip-name-resolve --character-set-server=utf8mb4 \
    --collation-server=utf8mb4_unicode_ci --innodb-log-file-size=16M --innodb-buffer-pool-size=64M \
    --performance-schema=off --skip-log-bin >/dev/null 2>&1 </dev/null 9>&- &
  DB_PID=$!
  until mariadb --no-defaults --socket="$socket" -e 'select 1' >/dev/null 2>&1; do
    kill -0 "$DB_PID" 2>/dev/null || { tail -n 5 "$log" >&2; fail "the database did not start; its log is $log"; }
    waited=$((waited + 1))
    [ $waited -lt 1200 ] || fail "the database did not answer within two minutes; its log is $log"
    sleep 0.1
  done
  {
    echo "create user if not exists 'awlsmith'@'127.0.0.1'; alter user 'awlsmith'@'127.0.0.1' identified by '$DB_PASSWORD';"
    local name
    for name in "$@"; do
      echo "create database if not exists \`$name\` character set utf8mb4 collate utf8mb4_unicode_ci;"
      echo "grant all on \`$name\`.* to 'awlsmith'@'127.0.0.1';"
    done
  } | mariadb --no-defaults --socket="$socket" || fail "the database's user could not be made"
}

db_down() {
  [ -n "${DB_PID:-}" ] || return 0
  local pid="$DB_PID"
  DB_PID=
  kill "$pid" 2>/dev/null || return 0
  wait "$pid" 2>/dev/null || true
}

# --- building ----------------------------------------------------------------------------------------------------------

build_for=()
case "${AWLSMITH_PROCESSOR:-cores}" in
  cores) ;;
  graphics) build_for=(-Pgraphics) ;;
  *) fail "AWLSMITH_PROCESSOR is '$AWLSMITH_PROCESSOR', must be cores or graphics" ;;
esac

# Asked only where something is built: the question starts Node.
demand_node() {
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Node 20 or later is needed to build the screens; this machine has $(node -v)"
}

maven() {
  # the last two silence warnings of Maven's own libraries on newer JDKs
  MAVEN_OPTS="${MAVEN_OPTS:-} --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow" \
    AWLSMITH_BUILD_DB_PORT="${DB_PORT:-}" AWLSMITH_BUILD_DB_PASSWORD="${DB_PASSWORD:-}" \
    run_child mvn -B -f "$root/pom.xml" "${build_for[@]}" "$@"
}

# The version of what was built last: newest source file and the pom files.
sources_stamp() {
  find "$root" \( -name node_modules -o -name target -o -name .git -o -name .awlsmith -o -name dist -o -name docs \) -prune -o \
    -type f \( -name '*.java' -o -name '*.xml' -o -name '*.sql' -o -name '*.ts' -o -name '*.vue' -o -name '*.scss' -o -name '*.html' \
    -o -name '*.json' -o -name '*.properties' -o -name '*.yml' \) -printf '%P %T@ %s\n' | cat - "$root/docs/guide.md" | grep -v 'web/src/api/schema.d.ts' | sort | cksum
}

web_install_flag() {
  if [ "$root/web/node_modules/.package-lock.json" -nt "$root/web/package-lock.json" ]; then
    echo "-Dweb.install.skip=true"
  fi
}

class_path() { echo "$root/server/target/awlsmith-server-0.1.0.jar:$root/server/target/lib/*"; }

# Builds what is needed to run, unless nothing changed since the last time.
build_if_changed() {
  if is_packed; then return; fi
  local stamp
  stamp="$(sources_stamp) ${AWLSMITH_PROCESSOR:-cores}"
  if [ -f "$root/server/target/awlsmith-server-0.1.0.jar" ] && [ "$(cat "$root/server/target/.stamp" 2>/dev/null)" = "$stamp" ]; then
    return
  fi
  demand_node
  say "building (a few minutes the first time)"
  local log="$home/build.log"
  mkdir -p "$home"
  DB_FIRST_PORT=33970 db_up "$home/build-db" awlsmith_build
  if ! maven -q -pl server -am -DskipTests -Dspotless.check.skip -Dweb.checks.skip=true $(web_install_flag) package >"$log" 2>&1; then
    grep -E 'ERROR|error' "$log" | head -n 12 >&2
    db_down
    fail "the build failed; all of its output is in $log"
  fi
  db_down
  echo "$stamp" >"$root/server/target/.stamp"
}

# Builds a module that is not part of the server, and what it needs.
build_tools() {
  say "building"
  maven -q -pl "$1" -am -DskipTests -Dspotless.check.skip package >"$home/tools-build.log" 2>&1 \
    || { tail -n 20 "$home/tools-build.log" >&2; fail "the build failed"; }
}

# a render's planes come from a pool and stay; a small heap is enough and the collector may keep it small
render_flags=(-XX:+UseSerialGC -XX:MinHeapFreeRatio=10 -XX:MaxHeapFreeRatio=30)
java_flags=(--add-modules jdk.incubator.vector --enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow
  -Djava.awt.headless=true -Dawlsmith.processor="${AWLSMITH_PROCESSOR:-cores}")

# Java keeps the classes of a command as it needs them, from its first run on: the next one begins sooner. It makes the file
# anew when the program or Java changes; what it says of that is nobody's business.
classes_kept() { # classes_kept COMMAND
  case "$1" in
    *[!a-z]*) ;;
    *) java_flags+=(-XX:+AutoCreateSharedArchive "-XX:SharedArchiveFile=$home/classes-$1.jsa" -Xlog:disable) ;;
  esac
}

# put before a command that does the work; all it starts, FFmpeg too, stays on these cores
on_cores=()
if [ -n "${AWLSMITH_CORES:-}" ]; then
  need taskset util-linux
  taskset -c "$AWLSMITH_CORES" true 2>/dev/null || fail "AWLSMITH_CORES is '$AWLSMITH_CORES': this machine has the cores 0-$(($(nproc --all) - 1)); write them as 0-3,6"
  on_cores=(taskset -c "$AWLSMITH_CORES")
fi
