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

# Voice notes: a voice is a buzz with two formants that goes up and down, with pauses; each has its own pitch and length.
for i in 0 1 2 3; do
  pitch=$((110 + i * 45)); length=$((3 + i * 2))
  voice="(mod($pitch*(1+0.12*sin(2*PI*1.7*t+$i))*t\,1)-0.5)*(0.6+0.4*sin(2*PI*$((3 + i))*t))*(0.5+0.5*sin(2*PI*0.45*t+$i))*0.5"
  ff -f lavfi -i "aevalsrc=$voice:duration=$length:sample_rate=24000" -af "bandpass=f=700:w=900,volume=36dB,alimiter=limit=0.7" -c:a libopus -b:a 16k "$out/voice-$i.opus"
done
# Songs of the choir: chords of four notes, each song in a key and a measure of its own.
song() { # NUMBER TITLE ALBUM KEY BEAT
  local n="" part
  for part in 1 1.25 1.5 2; do n="$n+sin(2*PI*$4*$part*pow(2\,floor(mod(t/$5\,4))*5/12-floor(mod(t/$5\,4)*5/12))*t)*exp(-1.2*mod(t\,$5))*0.18"; done
  ff -f lavfi -i "aevalsrc=${n#+}:duration=20:sample_rate=24000" -c:a aac -b:a 40k -metadata title="$2" -metadata artist="Skerrow Choir" -metadata album="$3" \
     -metadata track="$1/6" -metadata date=2025 -metadata genre="Choir" "$out/song-$1.m4a"
}
song 1 "The gannet" "Midsummer" 220 0.8; song 2 "Kettle song" "Midsummer" 247 0.6; song 3 "Lamp stair" "Midsummer" 196 1.1
song 4 "Channel six" "Storm watch" 262 0.5; song 5 "Third step" "Storm watch" 174 1.3; song 6 "Eleven slates" "Storm watch" 233 0.7
ff -f lavfi -i "aevalsrc=(mod(130*(1+0.1*sin(2*PI*1.3*t))*t\,1)-0.5)*(0.5+0.5*sin(2*PI*3*t))*0.4:duration=25:sample_rate=24000" -af "bandpass=f=650:w=800,volume=36dB,alimiter=limit=0.7" \
   -c:a libmp3lame -b:a 32k -metadata title="Tides, and who believes in them" -metadata artist="Island Radio" -metadata album="Harbour hour" -metadata genre=Podcast "$out/harbour-hour.mp3"
ff -f lavfi -i "mandelbrot=size=480x270:rate=12:start_scale=0.4:end_scale=0.05" -f lavfi -i "aevalsrc=sin(2*PI*196*t)*0.2:sample_rate=24000" -t 6 \
   -c:v libx264 -crf 36 -pix_fmt yuv420p -c:a aac -b:a 24k -metadata title="The Lamp Keepers, 1: Fog" "$out/lamp-keepers.mp4"
