#!/usr/bin/env bash
# Makes the clips that the practice phones hold, from nothing but arithmetic and the project's own drawings.
# Needs Debian's ffmpeg and libheif-examples and a built project. Run once; the results are in the tree.
set -euo pipefail
cd "$(dirname "$0")/.."
out=src/main/resources/app/custodex/practice/media
work=$(mktemp -d); trap 'rm -rf "$work"' EXIT
ff() { ffmpeg -hide_banner -loglevel error -y "$@"; }

java -cp "target/classes:$(ls ../cli/target/lib/*.jar | tr '\n' ':')" app.custodex.practice.content.Sketchbook "$work"
for i in 0 1 2 3 4 5; do heif-enc -q 40 -o "$out/island-$i.heic" "$work/$i.jpg" >/dev/null; done
ff -i "$work/6.jpg" -vf scale=800:-1 -quality 60 "$out/harbour.webp"
ff -loop 1 -i "$work/7.jpg" -f lavfi -i "anoisesrc=color=brown:amplitude=0.3:duration=4" -t 4 -vf "scale=640:-2,zoompan=z='1+on/800':d=1:s=640x480:fps=12" \
   -c:v libx264 -crf 34 -pix_fmt yuv420p -c:a aac -b:a 32k -shortest "$out/storm-night.mp4"
tune="sin(2*PI*220*t)*exp(-2*mod(t\,0.5))*0.4+sin(2*PI*330*t)*exp(-3*mod(t\,1))*0.3"
ff -f lavfi -i "aevalsrc=$tune:duration=8:sample_rate=24000" -c:a aac -b:a 32k -metadata title="Slow tide" -metadata artist="Skerrow Choir" "$out/slow-tide.m4a"
ff -f lavfi -i "aevalsrc=sin(2*PI*(440+200*mod(t\,1))*t)*0.3:duration=3:sample_rate=24000" -c:a aac -b:a 32k -metadata title="Gannet" "$out/gannet.m4a"
ff -f lavfi -i "aevalsrc=sin(2*PI*(440+200*mod(t\,1))*t)*0.3:duration=3:sample_rate=24000" -c:a libopus -b:a 16k "$out/gannet.opus"
# AMR (RFC 4867 §5): the magic line and 20 ms frames; type 15 says "no data", so this voicemail is nine seconds of silence.
{ printf '#!AMR\n'; for _ in $(seq 450); do printf '\x7c'; done; } > "$out/grandfather.amr"
