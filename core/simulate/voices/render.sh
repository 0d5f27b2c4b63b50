#!/bin/sh
# Renders the dry voice clips once with Debian's espeak-ng. The results are committed, so running
# Marvet does not need it. Clips are mono, 16 bit, 22.05 kHz.
set -eu
cd "$(dirname "$0")"
say() { espeak-ng -v "$2" -p "$3" -s "$4" -w "$1.wav" "$5"; }

for talker in ferrier netmaker; do
  if [ "$talker" = ferrier ]; then voice=en-gb; pitch=18; speed=150; else voice=en-gb+f3; pitch=72; speed=158; fi
  say "$talker-neutral" "$voice" "$pitch" "$speed" \
    "The ferry leaves the landing at a quarter to nine. We have carried grain and letters over this water for sixty years."
  say "$talker-plosives" "$voice" "$pitch" "$speed" \
    "Pull the port paddle back, Peter. Both bilge pumps broke before breakfast, but the barge is built to be patched."
  say "$talker-sibilants" "$voice" "$pitch" "$speed" \
    "Sixteen slack chains slip through the seaweed. Six swans circle as the last mist rises."
  say "$talker-counting" "$voice" "$pitch" 120 \
    "One. Two. Three. Four. Five. Six. Seven. Eight. Nine. Ten."
done
