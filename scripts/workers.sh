#!/usr/bin/env bash
# Measures what other machines bring: a server and one, two and four machines, each at half a core (cpu.cfs_quota_us of cgroup v1) and behind
# a network interface of its own (namespaces and a bridge); then one of them slow, one killed, and one whose clock is three hours ahead.
# Writes docs/workers.md. Needs root. `./awlsmith measure --workers [frames=N]`
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
frames=720
for word in "$@"; do
  case "$word" in
    frames=*) frames="${word#frames=}" ;;
    *) fail "measure --workers knows frames=N; '$word' is none of it" ;;
  esac
done
[ "$(id -u)" -eq 0 ] || fail "network namespaces and limits of the processor want root"
cpu=/sys/fs/cgroup/cpu
[ -d "$cpu" ] || fail "there is no cgroup v1 for the processor here"
need ip iproute2 jq jq curl curl nsenter util-linux ffmpeg ffmpeg gcc gcc
find_java
build_if_changed

net=10.77.0 port=8490 helpers=4
work=$(mktemp -d) report="$root/docs/workers.md"
password=$(head -c 18 /dev/urandom | base64)

limit() { # limit GROUP THOUSANDTHS-OF-A-CORE
  mkdir -p "$cpu/$1"
  echo 100000 >"$cpu/$1/cpu.cfs_period_us"
  echo $(($2 * 100)) >"$cpu/$1/cpu.cfs_quota_us"
}

kill_group() { # kill_group GROUP: at once, with its children
  local pids
  while pids=$(cat "$cpu/$1/tasks" 2>/dev/null) && [ -n "$pids" ]; do
    # shellcheck disable=SC2086
    kill -9 $pids 2>/dev/null || true
    sleep 0.1
  done
}

clean() {
  local n
  for n in $(seq "$helpers"); do
    kill_group "awl$n"
    rmdir "$cpu/awl$n" 2>/dev/null
    ip netns del "awl$n" 2>/dev/null
    ip link del "awlv$n" 2>/dev/null
  done
  kill_group awl0
  rmdir "$cpu/awl0" 2>/dev/null
  ip link del awlbr 2>/dev/null
  rm -rf "$work"
}
trap 'set +e; clean' EXIT

set +e
clean
set -e
mkdir -p "$work"
ip link add awlbr type bridge
ip addr add "$net.1/24" dev awlbr
ip link set awlbr up
for n in $(seq "$helpers"); do
  ip netns add "awl$n"
  ip link add "awlv$n" type veth peer name eth0 netns "awl$n"
  ip link set "awlv$n" master awlbr up
  ip -n "awl$n" addr add "$net.$((n + 10))/24" dev eth0
  ip -n "awl$n" link set eth0 up
  ip -n "awl$n" link set lo up
done

# the server, with its database; without a limit while it starts
limit awl0 2000
echo "$password" | AWLSMITH_HOME="$work/server" "$root/awlsmith" password
(
  echo "$BASHPID" >"$cpu/awl0/tasks"
  # parts of one length in every run, else their files would differ: it is measured anew for each render
  AWLSMITH_SEGMENTFRAMES=32 AWLSMITH_HOME="$work/server" AWLSMITH_ADDRESS="$net.1" AWLSMITH_HOSTS="$net.1" AWLSMITH_PORT="$port" exec "$root/awlsmith" start
) >"$work/server.log" 2>&1 &
at="http://$net.1:$port" jar="$work/jar"
until curl -sf -o /dev/null -c "$jar" -b "$jar" "$at/api/session"; do sleep 1; done
ask() { # ask METHOD PATH [JSON]
  curl -s --fail-with-body -c "$jar" -b "$jar" -H "X-XSRF-TOKEN: $(awk '$6 == "XSRF-TOKEN" { print $7 }' "$jar")" \
    -H 'Content-Type: application/json' -X "$1" ${3:+--data "$3"} "$at$2"
}
ask POST /api/session "{\"password\":\"$password\"}" >/dev/null
ask GET /api/session >/dev/null

clip() { # clip FRAMES: noisy footage on the shelf; its take
  local id
  ffmpeg -v error -y -f lavfi -i "testsrc2=s=256x144:r=25,noise=alls=12:allf=t" -frames:v "$1" -c:v libx264 -crf 20 "$work/$1.mp4"
  id=$(curl -s --fail-with-body -c "$jar" -b "$jar" -H "X-XSRF-TOKEN: $(awk '$6 == "XSRF-TOKEN" { print $7 }' "$jar")" \
    -H 'Content-Type: application/octet-stream' --data-binary "@$work/$1.mp4" "$at/api/clips?name=$1.mp4" | jq -r .id)
  until [ "$(ask GET "/api/clips/$id" | jq -r .state)" = READY ]; do sleep 1; done
  ask POST /api/takes/alike "{\"clips\":[\"$id\"],\"way\":{\"how\":\"SAME\",\"recipe\":{\"awlsmith\":1,\"steps\":[
    {\"step\":\"denoise\",\"settings\":{}},{\"step\":\"enlarge\",\"settings\":{\"factor\":2,\"model\":\"photographic\"}}]}}}" >/dev/null
  ask GET "/api/clips/$id/takes" | jq -r '.[0].id'
}

of() { ask GET /api/renders | jq -r --arg id "$1" ".[] | select(.id == \$id) | $2"; }

# run TAKE [COMMAND-AT-A-THIRD...]: seconds, of them behind the treatment, frames of others, parts' hash
run() {
  local take="$1" id begun treated now done total acted=
  shift
  id=$(ask POST /api/batches "{\"name\":\"\",\"takes\":[{\"takeId\":\"$take\",\"wholeClip\":true}],\"deliverables\":[
    {\"codec\":\"h264\",\"settings\":{},\"container\":\"mp4\",\"sound\":\"none\"}]}" | jq -r '.[0].id')
  until [ "$(of "$id" .framesDone)" != 0 ]; do sleep 0.2; done
  begun=$(date +%s.%N) treated=
  while :; do
    now=$(of "$id" '"\(.state) \(.framesDone) \(.frames)"')
    read -r state done total <<<"$now"
    case "$state" in DONE) break ;; FAILED | CANCELLED) fail "the render failed: $(of "$id" .problem)" ;; esac
    if [ -z "$treated" ] && [ "$done" -ge "$total" ]; then treated=$(date +%s.%N); fi
    if [ -z "$acted" ] && [ $# -gt 0 ] && [ $((done * 3)) -ge "$total" ]; then acted=1; "$@"; fi
    sleep 0.5
  done
  now=$(date +%s.%N)
  printf '%s %s %s %s\n' "$(jq -n "$now - $begun")" "$(jq -n "${treated:-$now} - $begun")" "$(of "$id" '.result.elsewhere // 0')" \
    "$(ask GET "/api/renders/$id/sha256" | cut -c1-64)"
}

helper() { # helper N [WORDS BEFORE THE COMMAND]: a machine of its own
  local n="$1" token
  shift
  token=$(ask POST /api/workers "{\"name\":\"machine $n\"}" | jq -r .token)
  limit "awl$n" 500
  (
    echo "$BASHPID" >"$cpu/awl$n/tasks"
    AWLSMITH_TOKEN="$token" AWLSMITH_HOME="$work/home$n" exec nsenter --net="/var/run/netns/awl$n" "$@" \
      "$root/awlsmith" worker --server "$at" --home "$work/parts$n" --threads 1
  ) >"$work/helper$n.log" 2>&1 &
}

say "a clip of $frames frames"
long=$(clip "$frames")
helper 1
helper 2
helper 3
limit awl0 500
say "all four made warm"
run "$long" >/dev/null
run "$long" >/dev/null

rows=() hash= single=
row() { # row WHAT N FIGURES...
  local what="$1" n="$2" whole="$3" treated="$4" others="$5" sha="$6"
  : "${hash:=$sha}"
  local same=yes
  [ "$sha" = "$hash" ] || same=**no**
  rows+=("$(printf '%s|%s|%s|%s|%s|%s' "$what" "$n" "$whole" "$treated" "$others" "$same")")
  say "$what: $whole s, $treated s treated, $others frames of others, same file: $same"
}
slow() { limit awl1 100; }
# shellcheck disable=SC2046
{
  row "four machines" 4 $(run "$long")
  row "four, one a fifth as quick from a third on" 4 $(run "$long" slow)
  limit awl1 500
  row "four, one killed at a third" 4 $(run "$long" kill_group awl2)
  kill_group awl1
  row "two machines" 2 $(run "$long")
  kill_group awl3
  sleep 40
  row "one: the server alone" 1 $(run "$long")
  # a clock of the wall that is three hours ahead; faketime does more than that, and makes a program of many threads ten times as slow
  gcc -shared -fPIC -O2 -o "$work/ahead.so" -x c - <<'C'
#define _GNU_SOURCE
#include <sys/syscall.h>
#include <sys/time.h>
#include <time.h>
#include <unistd.h>
int clock_gettime(clockid_t clock, struct timespec *now) {
  int said = syscall(SYS_clock_gettime, clock, now);
  if (said == 0 && clock == CLOCK_REALTIME) now->tv_sec += 3 * 3600;
  return said;
}
int gettimeofday(struct timeval *now, void *zone) {
  struct timespec t;
  clock_gettime(CLOCK_REALTIME, &t);
  now->tv_sec = t.tv_sec;
  now->tv_usec = t.tv_nsec / 1000;
  return 0;
}
time_t time(time_t *now) {
  struct timespec t;
  clock_gettime(CLOCK_REALTIME, &t);
  if (now) *now = t.tv_sec;
  return t.tv_sec;
}
C
  helper 4 env "LD_PRELOAD=$work/ahead.so"
  sleep 20
  row "two, one with a clock three hours ahead" 2c $(run "$long")
}
single=$(printf '%s\n' "${rows[@]}" | awk -F'|' '$2 == "1" { print $4 }')
whole=$(printf '%s\n' "${rows[@]}" | awk -F'|' '$2 == "1" { print $3 }')
{
  echo "# Several machines"
  echo
  echo "Made by \`./awlsmith measure --workers frames=$frames\` on $(date +%F); $(nproc) cores; do not edit."
  echo
  echo "A noisy clip of 256x144, $frames frames, denoised and enlarged twice by nets, sent out as H.264 in parts of 32. The server (with its database) counts as one"
  echo "machine; each has half a core and is reached through a network interface of its own. Treated: from the first"
  echo "frame to the last; whole: until the file is put together and read back, which the server does alone. Times one machine's."
  echo
  echo "| machines | treated | times | whole | times | frames of others | same file |"
  echo "|---|--:|--:|--:|--:|--:|---|"
  for line in "${rows[@]}"; do
    awk -F'|' -v one="$single" -v all="$whole" '{ printf "| %s | %.0f s | %.2f | %.0f s | %.2f | %d | %s |\n", $1, $4, one / $4, $3, all / $3, $5, $6 }' <<<"$line"
  done
} >"$report"
say "written: docs/workers.md"
