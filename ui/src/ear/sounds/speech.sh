#!/usr/bin/env bash
# Has espeak-ng read the manual and count, for `make listen`, into the folder that is named. sox makes rooms of it.
set -euo pipefail
cd "$(dirname "$0")/../../../.."
out=$1
mkdir -p "$out"
rate=16000 # of all made sounds (parts.ts)

for tag in en de es fr; do
  folder=docs/manual
  test "$tag" = en || folder=docs/manual/$tag
  for page in first-class by-hand; do
    sed -e 's/[#*`|_>\[]//g' -e 's/\](.*)//g' "$folder/$page.md" |
      espeak-ng -v "$tag" -s 145 --stdin --stdout |
      sox -t wav - -r $rate -c 1 -b 16 "$out/talk-$tag-$page.wav" trim 0 240 gain -n -9
  done
  # Said in a large room, and over a fan.
  sox "$out/talk-$tag-first-class.wav" -b 16 "$out/talk-$tag-in-a-hall.wav" gain -6 reverb 70
  sox -n -r $rate -c 1 -b 16 "$out/fan.wav" synth 240 pinknoise gain -30
  sox -m "$out/talk-$tag-by-hand.wav" "$out/fan.wav" -b 16 "$out/talk-$tag-over-a-fan.wav" trim 0 240
  rm "$out/fan.wav"
  for number in 1 2 3 4 5 6 7 8; do
    espeak-ng -v "$tag" -s 170 --stdout "$number" |
      sox -t wav - -r $rate -c 1 -b 16 "$out/word-$tag-$number.wav" silence 1 0.01 0.5% gain -n -9
  done
done
