#!/usr/bin/env bash
# Measures what further machines are worth: a server and up to three workers, each held to half a core, in network namespaces of their own, make the
# same render; then one worker is killed midway, and one has a tenth of a core. Writes docs/workers.md. Wants root (namespaces, cgroups), and two idle cores.
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
[ "$(id -u)" -eq 0 ] || fail "network namespaces and shares of a core are root's to give"
find_java
need ip iproute2 curl curl jq jq ffmpeg ffmpeg
port=8477 net=10.213.7
work=$(mktemp -d "${TMPDIR:-/tmp}/awlsmith-workers.XXXXXX")
groups=() names=() server=
mkdir -p "$work/client"

# whatever of ours still runs in a group ends, then the group, the namespaces and the bridge
tidy() {
  local one
  if [ -n "$server" ]; then kill -TERM "$server" 2>/dev/null || true; wait "$server" 2>/dev/null || true; fi
  for one in "${groups[@]}"; do
    xargs -r kill -KILL <"$one/cgroup.procs" 2>/dev/null || true
    sleep 0.3
    rmdir "$one" 2>/dev/null || true
  done
  for one in "${names[@]}"; do ip netns del "$one" 2>/dev/null || true; done
  ip link del awlbridge 2>/dev/null || true
  rm -rf "$work"
}
trap tidy EXIT
trap 'exit 130' INT
trap 'exit 143' TERM HUP

# share NAME PERCENT: a group that gets so much of one core; sets `group`
share() {
  if [ -d /sys/fs/cgroup/cpu ]; then
    group="/sys/fs/cgroup/cpu/awlsmith-$1-$$"
    mkdir -p "$group"
    echo 20000 >"$group/cpu.cfs_period_us"
    echo $(($2 * 200)) >"$group/cpu.cfs_quota_us"
  else
    group="/sys/fs/cgroup/awlsmith-$1-$$"
    mkdir -p "$group"
    echo "$(($2 * 200)) 20000" >"$group/cpu.max"
  fi
  [[ " ${groups[*]} " == *" $group "* ]] || groups+=("$group")
}
within() { # within GROUP COMMAND...
  local group="$1"; shift
  bash -c 'echo $$ >"$0/cgroup.procs"; exec "$@"' "$group" "$@"
}

ip link add awlbridge type bridge
ip addr add "$net.1/24" dev awlbridge
ip link set awlbridge up
namespace() { # namespace NUMBER
  local name="awlsmith-$1"
  ip netns add "$name"
  names+=("$name")
  ip link add "awlveth$1" type veth peer name eth0 netns "$name"
  ip link set "awlveth$1" master awlbridge up
  ip -n "$name" addr add "$net.$((10 + $1))/24" dev eth0
  ip -n "$name" link set eth0 up
  ip -n "$name" link set lo up
}

at="http://$net.1:$port"
ask() { # ask METHOD PATH [BODY-ARGUMENTS...]
  local method="$1" path="$2"; shift 2
  curl -s --fail-with-body -b "$work/jar" -H "X-XSRF-TOKEN: $(awk '$6 == "XSRF-TOKEN" { print $7 }' "$work/jar")" -X "$method" "$@" "$at$path"
}
sent() { # sent PATH JSON
  ask POST "$1" -H 'Content-Type: application/json' --data "$2"
}

export AWLSMITH_HOME="$work/server" AWLSMITH_PORT="$port" AWLSMITH_ADDRESS="$net.1"
echo 'a password for measuring' | "$root/awlsmith" password
share server 50
within "$group" "$root/awlsmith" start >"$work/log" 2>&1 &
server=$!
until grep -q 'token=' "$work/log"; do kill -0 "$server" || { cat "$work/log" >&2; fail "the server did not start"; }; sleep 1; done
curl -s -c "$work/jar" -b "$work/jar" -o /dev/null "$at/enter?token=$(sed -n 's/.*token=//p' "$work/log")"
curl -s -c "$work/jar" -b "$work/jar" -o /dev/null "$at/api/session"

ffmpeg -v error -f lavfi -i 'testsrc2=s=320x180:r=25:d=16,noise=alls=10:allf=t:all_seed=1' -pix_fmt yuv420p -c:v libx264 -crf 12 "$work/clip.mp4"
clip=$(ask POST "/api/clips?name=clip.mp4" -H 'Content-Type: application/octet-stream' --data-binary "@$work/clip.mp4" | jq -r .id)
until [ "$(ask GET "/api/clips/$clip" | jq -r '.state + .examination.state')" = READYDONE ]; do sleep 1; done
take=$(ask GET "/api/clips/$clip/takes" | jq -r '.[0].id')
sent /api/takes/alike "{\"clips\":[\"$clip\"],\"way\":{\"how\":\"SAME\",\"recipe\":{\"awlsmith\":1,\"steps\":[
  {\"step\":\"denoise\",\"settings\":{}},{\"step\":\"enlarge\",\"settings\":{\"factor\":2,\"model\":\"photographic\"}}]}}}" >/dev/null

workers=()
worker() { # worker NUMBER PERCENT
  [[ " ${names[*]} " == *" awlsmith-$1 "* ]] || namespace "$1"
  local token
  token=$(sent /api/workers "{\"name\":\"machine $1 of $RANDOM\"}" | jq -r .token)
  share "worker-$1" "$2"
  AWLSMITH_HOME="$work/worker-home-$1" AWLSMITH_TOKEN="$token" within "$group" ip netns exec "awlsmith-$1" \
    "$root/awlsmith" worker --server "$at" --home "$work/worker-$1" >"$work/worker-$1.log" 2>&1 &
  workers+=("$group")
}
end_workers() {
  local one
  for one in "${workers[@]}"; do xargs -r kill -KILL <"$one/cgroup.procs" 2>/dev/null || true; done
  workers=()
  sleep 1
}

# one render; sets `seconds`, `sum`, `elsewhere`. With a name, that group is killed when a third is made.
render() {
  local victim="${1:-}" id state
  id=$(sent /api/batches "{\"name\":\"measured\",\"takes\":[{\"takeId\":\"$take\",\"wholeClip\":true}],
    \"deliverables\":[{\"codec\":\"h264\",\"settings\":{},\"container\":\"mp4\",\"sound\":\"none\"}]}" | jq -r '.[0].id')
  while :; do
    state=$(ask GET /api/renders | jq -c --arg id "$id" '.[] | select(.id == $id)')
    case $(jq -r .state <<<"$state") in
      DONE) break ;;
      FAILED | CANCELLED) fail "the render failed: $(jq -r .problem <<<"$state")" ;;
    esac
    if [ -n "$victim" ] && [ "$(jq '.framesDone > 130' <<<"$state")" = true ]; then
      xargs -r kill -KILL <"$victim/cgroup.procs" 2>/dev/null || true
      victim=
    fi
    sleep 0.5
  done
  seconds=$(jq .result.workSeconds <<<"$state")
  sum=$(jq -r .result.sha256 <<<"$state")
  elsewhere=$(jq .result.elsewhere <<<"$state")
}

report="$work/report.md"
line() { printf '%s\n' "$*" | tee -a "$report" >&2; }
line "# Further machines"
line
line "Made by \`./awlsmith measure --workers\`; do not edit. $(date +%F)."
line
line "One render of 400 frames, 320x180 to 640x360 (denoise, enlarge twice with the net photographic, H.264), by a server and by workers beside it, each held to"
line "half of a core of one machine with $(nproc), in network namespaces of their own; the database runs in the server's half. Each process made the render once before, unmeasured."
line
line "| machines | seconds | faster | of as many times | frames by workers | file |"
line "|---|--:|--:|--:|--:|---|"
render; render
alone="$seconds" first="$sum"
tell() { # tell WORDS TIMES
  local same="the same"
  [ "$sum" = "$first" ] || same="**another**"
  line "$(awk -v w="$1" -v n="$2" -v a="$alone" -v s="$seconds" -v e="$elsewhere" -v f="$same" \
    'BEGIN { printf "| %s | %.1f | %.2f | %.0f %% | %d | %s |", w, s, a / s, 100 * a / s / n, e, f }')"
}
tell "the server alone" 1
worker 1 50; render; render; tell "and one worker" 2
worker 2 50; worker 3 50; render; render; tell "and three workers" 4
render "${workers[2]}"; tell "and three workers, one killed (SIGKILL) after a third" 4
end_workers
worker 1 50; worker 2 10; render; render; tell "and two workers, one with a tenth of a core" 2.2
cp "$report" "$root/docs/workers.md"
