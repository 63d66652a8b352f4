#!/usr/bin/env bash
# Long campaigns against what the tests try in small: killed servers, a lost database, a full disk, damaged files, parts by chance.
# Writes docs/robustness.md. `./awlsmith campaign [kills=N] [damage=N] [parts=N] [seed=N]`; 0 leaves one out
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
find_java
kills=5 damage=200 parts=5000 seed=1
for word in "$@"; do
  case "$word" in
    kills=* | damage=* | parts=* | seed=*) declare "$word" ;;
    *) fail "campaign knows kills=N, damage=N, parts=N and seed=N; '$word' is none of them" ;;
  esac
done
end_with_us
DB_FIRST_PORT=33980 db_up "$home/build-db" awlsmith_build awlsmith_test1 awlsmith_test2 awlsmith_e2e1 awlsmith_e2e2
report="$home/campaign.md"
: >"$report"
mkdir -p "$home"

# one CAMPAIGN MODULE TEST PROPERTIES...: a line of the report, with the tests' own count
one() {
  local what="$1" module="$2" test="$3" log="$home/campaign-$2.log" begun=$SECONDS result=passed
  shift 3
  say "$what"
  # tests of the browser's kind are failsafe's alone: only there they have a database
  local kind=(-Dtest="$test")
  if [ "$module" = e2e ]; then kind=(-Dtest=NoUnitTest -Dit.test="$test"); fi
  maven -pl "$module" -am -Dspotless.check.skip -Dweb.checks.skip=true $(web_install_flag) -Dsurefire.failIfNoSpecifiedTests=false \
    -Dfailsafe.failIfNoSpecifiedTests=false "${kind[@]}" "$@" verify >"$log" 2>&1 || result="**failed**, see $log"
  printf '| %s | %s | %d min |\n' "$what" "$result" $(((SECONDS - begun + 59) / 60)) >>"$report"
}

[ "$damage" -eq 0 ] || one "$damage damaged files of each of ten kinds: a sentence, or an index whose frames decode again to the same" \
  media DamagedFilesTest "-Dawlsmith.damage=$damage" "-Dawlsmith.damage.seed=$seed"
[ "$parts" -eq 0 ] || one "$parts recipes by chance on pictures by chance: parts equal the whole, bit for bit" \
  render PartsFuzzTest "-Dawlsmith.fuzz=$parts" "-Dawlsmith.fuzz.seed=$seed"
[ "$kills" -eq 0 ] || one "killed (SIGKILL) and closed (SIGTERM) while taking in, examining, in a proof, in a render; database away; disk full; $kills times each" \
  e2e KillsIT "-Dawlsmith.kills=$kills" "-Dawlsmith.kills.seed=$seed"
{
  echo "# What was tried against it"
  echo
  echo "Made by \`./awlsmith campaign kills=$kills damage=$damage parts=$parts seed=$seed\` on $(date +%F); $(nproc) cores."
  echo
  echo "| campaign | outcome | time |"
  echo "|---|---|---|"
  cat "$report"
} >"$root/docs/robustness.md"
