package app.custodex.practice.content;

import app.custodex.base.Json;
import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Role;
import app.custodex.practice.island.Motif;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;

/** Pictures, sound, alarms and apps as a Pellow keeps them: files, with lists in JSON beside them. */
final class PellowMedia {
    private static final LocalDateTime SUMMER = LocalDateTime.of(2025, 6, 1, 10, 0);

    private final Path files;
    private final Life life;

    private record Listed(String role, String name, List<String> files) {}

    private record Track(String title, String artist, String album, int seconds) {}

    private record Alarm(String label, String time, List<Integer> days, boolean on, String sound) {}

    private record App(String id, String name, String version, long bytes, String installed, String data) {}

    PellowMedia(Path files, Life life) {
        this.files = files;
        this.life = life;
    }

    void write() throws IOException {
        for (int i = 0; i < life.shots().size(); i++) {
            var shot = life.shots().get(i);
            if (shot.moving()) {
                Clips.put("storm-night.mp4", files.resolve("Pictures").resolve(clip(life, i)), shot.at());
            }
        }
        albums();
        Clips.put("harbour.webp", files.resolve("Pictures/2025/harbour.webp"), LocalDateTime.of(2025, 8, 2, 14, 0));
        Clips.put("storm-night.mp4", files.resolve("Pictures/2025/storm.mp4"), LocalDateTime.of(2025, 11, 14, 21, 31));
        Clips.put(
                "gannet.opus",
                files.resolve("Voice notes/2025-12-20 second verse.opus"),
                LocalDateTime.of(2025, 12, 20, 20, 40));
        sound();
        alarms();
        apps();
        Clips.text(
                "Ferry rota, winter\n\nMon  Jorun\nTue  Jorun\nWed  storm\n",
                files.resolve("Documents/Rota.txt"),
                life.until());
        Booklet.write(files.resolve("Documents/The two lights.epub"), LocalDateTime.of(2024, 10, 3, 19, 0));
        Clips.text(
                Tracks.overTheHill(LocalDateTime.of(2025, 8, 2, 10, 15)),
                files.resolve("Documents/Over the hill.gpx"),
                LocalDateTime.of(2025, 8, 2, 13, 40));
    }

    static Roll.Drawing picture(Path files, Life life, int i) {
        return Roll.picture(
                files.resolve("Pictures").resolve(path(life, i)), life.shots().get(i));
    }

    private static String path(Life life, int i) {
        var shot = life.shots().get(i);
        var name = "%s-%02d.jpg".formatted(shot.at().toLocalDate(), i);
        return life.albums().stream()
                        .anyMatch(album ->
                                album.role() == Role.BIN && album.shots().contains(i))
                ? "Bin/" + name
                : (shot.motif() == Motif.SCREEN ? "Screens" : shot.at().getYear()) + "/" + name;
    }

    private static String clip(Life life, int i) {
        return path(life, i).replaceFirst("\\.\\w+$", ".mp4");
    }

    private void albums() throws IOException {
        var albums = new ArrayList<Listed>();
        for (var album : life.albums()) {
            albums.add(new Listed(
                    switch (album.role()) {
                        case OWN -> "album";
                        case FAVOURITES -> "favourites";
                        case HIDDEN -> "hidden";
                        case BIN -> "bin";
                    },
                    album.name(),
                    album.shots().stream().map(i -> path(life, i)).toList()));
        }
        for (int i = 0; i < life.shots().size(); i++) {
            var shot = life.shots().get(i);
            if (shot.moving()) {
                albums.add(new Listed("clip", "", List.of(path(life, i), clip(life, i))));
            }
        }
        var burst = new ArrayList<String>();
        for (int i = 0; i < life.shots().size(); i++) {
            if (life.shots().get(i).burst() > 0) {
                burst.add(path(life, i));
            }
        }
        if (!burst.isEmpty()) {
            albums.add(new Listed("burst", "", burst));
        }
        json(albums, "Pictures/albums.json");
    }

    private void sound() throws IOException {
        var music = files.resolve("Music");
        Clips.put("slow-tide.m4a", music.resolve("Slow tide.m4a"), SUMMER);
        Clips.put("gannet.m4a", music.resolve("Ringtones/Gannet.m4a"), SUMMER);
        Clips.put("harbour-hour.mp3", music.resolve("Podcasts/Harbour hour 41.mp3"), SUMMER);
        Clips.put("lamp-keepers.mp4", files.resolve("Films/The Lamp Keepers 1.mp4"), SUMMER);
        var list = new StringBuilder("#EXTM3U\n#PLAYLIST:On deck\n");
        for (var song : Songs.HERE) {
            Clips.put(song.clip(), music.resolve(song.album()).resolve(song.title() + ".m4a"), SUMMER);
            list.append(
                    "#EXTINF:20,Skerrow Choir - %s%n%s/%s.m4a%n".formatted(song.title(), song.album(), song.title()));
        }
        Clips.text(list.toString().replace("\r", ""), music.resolve("On deck.m3u8"), SUMMER);
        json(
                Songs.ALL.stream()
                        .filter(song -> !Songs.HERE.contains(song))
                        .map(song -> new Track(song.title(), "Skerrow Choir", song.album(), 20))
                        .toList(),
                "Music/cloud.json");
    }

    private void alarms() throws IOException {
        json(
                life.alarms().stream()
                        .map(alarm -> new Alarm(
                                alarm.label(),
                                "%02d:%02d".formatted(alarm.hour(), alarm.minute()),
                                alarm.days(),
                                alarm.on(),
                                "Gannet"))
                        .toList(),
                "Shared/Clock/alarms.json");
    }

    private void apps() throws IOException {
        json(
                life.apps().stream()
                        .map(app -> new App(
                                app.identifier(),
                                app.name(),
                                app.version(),
                                app.bytes(),
                                app.installed().toString(),
                                app.data() ? "App data/" + AppData.folder(app) : ""))
                        .toList(),
                "Shared/Apps/apps.json");
        for (var app : life.apps()) {
            if (app.data() && !app.identifier().startsWith("app.")) {
                AppData.write(files.resolve("App data").resolve(AppData.folder(app)), life);
            }
        }
    }

    private void json(Object value, String path) throws IOException {
        Clips.text(Json.PAGE.writeValueAsString(value) + "\n", files.resolve(path), life.until());
    }
}
