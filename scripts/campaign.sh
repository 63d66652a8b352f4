#!/usr/bin/env bash
# Long campaigns against what the tests try in small: killed servers, a lost database, a full disk, damaged files, parts by chance.
# Writes docs/robustness.md. `./awlsmith campaign [kills=N] [storm=N] [damage=N] [parts=N] [seed=N]`; 0 leaves one out
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
find_java
kills=5 storm=200 damage=200 parts=5000 seed=1
for word in "$@"; do
  case "$word" in
    kills=* | storm=* | damage=* | parts=* | seed=*) declare "$word" ;;
    *) fail "campaign knows kills=N, storm=N, damage=N, parts=N and seed=N; '$word' is none of them" ;;
  esac
done
end_with_us
DB_FIRST_PORT=33980 db_up "$home/build-db" awlsmith_build awlsmith_test1 awlsmith_test2 awlsmith_e2e1 awlsmith_e2e2
report="$root/docs/robustness.md"
mkdir -p "$home"

# one KIND=N CAMPAIGN MODULE TEST PROPERTIES...: a line of the report, in place of the one of its kind
one() {
  local kind="$1" what="$2" module="$3" test="$4" log="$home/campaign-$3.log" begun=$SECONDS result=passed line
  shift 4
  say "$what"
  # tests of the browser's kind are failsafe's alone: only there they have a database
  local which=(-Dtest="$test")
  if [ "$module" = e2e ]; then which=(-Dtest=NoUnitTest -Dit.test="$test"); fi
  maven -pl "$module" -am -Dspotless.check.skip -Dweb.checks.skip=true $(web_install_flag) -Dsurefire.failIfNoSpecifiedTests=false \
    -Dfailsafe.failIfNoSpecifiedTests=false "${which[@]}" "$@" verify >"$log" 2>&1 || result="**failed**, see $log"
  local killed
  killed=$(grep -o '^killed {[^}]*}' "$log" | tail -1 | tr -d '{}' | tr 'A-Z=' 'a-z ') || true
  [ -z "$killed" ] || result="$result: $killed"
  line=$(printf '| %s | `%s seed=%s`, %s | %s | %d min |' "$what" "$kind" "$seed" "$(date +%F)" "$result" $(((SECONDS - begun + 59) / 60)))
  {
    echo "# What was tried against it"
    echo
    echo "Made by \`./awlsmith campaign\` with the words in the second column; $(nproc) cores. Do not edit."
    echo
    echo "| campaign | words | outcome | time |"
    echo "|---|---|---|---|"
    { grep '^| .*`' "$report" | grep -v "\`${kind%%=*}=" || true; echo "$line"; } 2>/dev/null
  } >"$report.new"
  mv "$report.new" "$report"
}

[ "$damage" -eq 0 ] || one "damage=$damage" "$damage damaged files of each of ten kinds: a sentence, or an index whose frames decode again to the same" \
  media DamagedFilesTest "-Dawlsmith.damage=$damage" "-Dawlsmith.damage.seed=$seed"
[ "$parts" -eq 0 ] || one "parts=$parts" "$parts recipes by chance on pictures by chance: parts equal the whole, bit for bit" \
  render PartsFuzzTest "-Dawlsmith.fuzz=$parts" "-Dawlsmith.fuzz.seed=$seed"
[ "$kills" -eq 0 ] || one "kills=$kills" "killed (SIGKILL) and closed (SIGTERM) while taking in, examining, in a proof, in a render; database away; disk full; $kills times each" \
  e2e KillsIT "-Dawlsmith.kills=$kills" "-Dawlsmith.kills.seed=$seed"
[ "$storm" -eq 0 ] || one "storm=$storm" "$storm kills at random moments of the server, its FFmpeg, another machine or the database, while two files of one treatment are made: finished by itself, and bit for bit as undisturbed" \
  e2e StormIT "-Dawlsmith.storm=$storm" "-Dawlsmith.kills.seed=$seed"
