#!/usr/bin/env bash
# Measures speed and writes docs/performance.md; `--kernels` runs the JMH benchmarks of the kernels as well. `--quality` measures
# the models' picture quality instead and writes docs/quality.md; `--preparing` examining and deinterlacing, docs/preparing.md;
# `--cleaning` noise and what takes it out, docs/cleaning.md (`--cleaning times` its last table alone, likewise noise, compression, orders); `--detail` sharpness, docs/detail.md; `--retiming` frames made, docs/retiming.md; `--steadying` steady pictures, docs/steadying.md; `--motion` motion beside OpenCV's, docs/motion.md; `--limits` kernels against memory and arithmetic, docs/limits.md; `--sending` what is told before a render and what it comes to, docs/sending.md (`--sending told` one of its sections alone, likewise several, twenty, first, lending); `--workers` several machines, docs/workers.md; `--looking` stills, docs/looking.md, with what the browser tests measured of drawing and memory if they were run.
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
case "${1:-}" in
  '' | --kernels | --quality | --preparing | --cleaning | --detail | --retiming | --steadying | --motion | --limits | --looking | --sending) ;;
  --workers) exec "$root/scripts/workers.sh" "${@:2}" ;;
  *)
    echo "awlsmith: measure does not know $1; see ./awlsmith help" >&2
    exit 2
    ;;
esac
find_java
mkdir -p "$home"
case "${1:-}" in
  --preparing | --sending | --cleaning | --detail | --retiming | --steadying | --quality)
    [ -d "$home/media/demo" ] || fail "this measures on the demo archive, which is not made yet: start ./awlsmith demo once" ;;
esac
build_tools benchmarks
cp=$(printf '%s' "$root/benchmarks/target/awlsmith-benchmarks-0.1.0.jar:$root/benchmarks/target/lib/*")
if [ "${1:-}" = --preparing ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Preparing "$root/docs/preparing.md" "$home/packages" "$home/media/demo"
fi
if [ "${1:-}" = --sending ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -Dawlsmith.command="$root/awlsmith" -cp "$cp" awlsmith.benchmarks.Sending "$root/docs/sending.md" "$home/packages" "$home/media/demo" "${@:2}"
fi
if [ "${1:-}" = --cleaning ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Cleaning "$root/docs/cleaning.md" "$home/packages" "$home/media/demo" "${@:2}"
fi
if [ "${1:-}" = --detail ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Detailing "$root/docs/detail.md" "$home/packages" "$home/media/demo"
fi
if [ "${1:-}" = --retiming ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Retiming "$root/docs/retiming.md" "$home/packages" "$home/media/demo"
fi
if [ "${1:-}" = --steadying ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Steadying "$root/docs/steadying.md" "$home/packages" "$home/media/demo"
fi
if [ "${1:-}" = --motion ]; then
  /usr/bin/python3 -c 'import cv2' 2>/dev/null || fail "OpenCV is what motion is held against; install Debian's python3-opencv"
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Flowing "$root/docs/motion.md" "$home/packages"
fi
if [ "${1:-}" = --limits ]; then
  exec java "${java_flags[@]}" -cp "$cp" awlsmith.benchmarks.Limits "$root/docs/limits.md"
fi
if [ "${1:-}" = --looking ]; then
  exec java "${java_flags[@]}" "${render_flags[@]}" -cp "$cp" awlsmith.benchmarks.Looking "$root/docs/looking.md" "$root/e2e/target/drawing.md" "$root/e2e/target/memory.md"
fi
if [ "${1:-}" = --quality ]; then
  exec java "${java_flags[@]}" -cp "$cp" awlsmith.benchmarks.Quality "$root/docs/quality.md" "$home/packages" "$home/media/demo"
fi
java "${java_flags[@]}" -Dawlsmith.render-flags="${render_flags[*]}" -cp "$cp" awlsmith.benchmarks.Measure "$root/docs/performance.md"
if [ "${1:-}" = --kernels ]; then
  {
    echo "## Kernels (JMH, one thread, ms a call)"
    echo
    echo '```'
    for lanes in scalar vector; do
      echo "lanes: $lanes"
      java "${java_flags[@]}" -cp "$cp" org.openjdk.jmh.Main -jvmArgsAppend "--add-modules jdk.incubator.vector -Dawlsmith.lanes=$lanes" \
        -rf text -rff "$home/jmh.txt" >/dev/null 2>&1
      cat "$home/jmh.txt"
    done
    echo '```'
  } >>"$root/docs/performance.md"
fi
