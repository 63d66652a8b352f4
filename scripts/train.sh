#!/usr/bin/env bash
# Trains a model or ships a trained one; see `./awlsmith train`.
root=$(cd "$(dirname "$(readlink -f "${BASH_SOURCE[0]}")")/.." && pwd)
# shellcheck source=lib.sh
. "$root/scripts/lib.sh"
find_java
mkdir -p "$home/training"
build_tools trainer
# two threads that spin while they wait are slower than one
export OMP_WAIT_POLICY=PASSIVE GOMP_SPINCOUNT=0 DJL_CACHE_DIR="$home/training/djl"
verb="$1"; shift
words=("packages=$home/packages" "training=$home/training")
[ "$verb" = quicken ] && words=("packages=$home/packages" "into=$root/nets/src/main/resources/awlsmith/nets")
[ "$verb" = ship ] && words=("training=$home/training" "into=$root/nets/src/main/resources/awlsmith/nets")
[ "$verb" = trial ] && words=("packages=$home/packages")
exec java -Xmx6g "${java_flags[@]}" -Dai.djl.pytorch.num_threads="$(nproc)" -Dai.djl.pytorch.num_interop_threads=1 \
  -cp "$root/trainer/target/awlsmith-trainer-0.1.0.jar:$root/trainer/target/lib/*" awlsmith.trainer.Main "$verb" "${words[@]}" "$@"
