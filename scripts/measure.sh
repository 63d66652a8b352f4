#!/usr/bin/env bash
# Measures speed and quality and writes docs/performance.md. `--kernels` runs the JMH benchmarks of the kernels as well.
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
find_java
DB_FIRST_PORT=33970 db_up "$home/build-db" awlsmith_build
trap db_down EXIT
say "building"
maven -q -pl benchmarks -am -DskipTests -Dspotless.check.skip package >"$home/measure-build.log" 2>&1 \
  || { tail -n 20 "$home/measure-build.log" >&2; fail "the build failed"; }
db_down
cp=$(printf '%s' "$root/benchmarks/target/awlsmith-benchmarks-0.1.0.jar:$root/benchmarks/target/lib/*")
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
