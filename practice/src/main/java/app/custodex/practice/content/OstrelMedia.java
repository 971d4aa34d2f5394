package app.custodex.practice.content;

import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Role;
import app.custodex.practice.island.Life.Shot;
import app.custodex.practice.island.Motif;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.List;

/** Pictures, sound and films as an Ostrel keeps them: files, with what it knows of them in databases beside. */
final class OstrelMedia {
    private static final LocalDateTime SUMMER = LocalDateTime.of(2025, 6, 1, 10, 0);

    private final Path files;
    private final Life life;

    OstrelMedia(Path files, Life life) {
        this.files = files;
        this.life = life;
    }

    void write() throws IOException {
        for (int i = 0; i < life.shots().size(); i++) {
            var shot = life.shots().get(i);
            if (shot.moving()) {
                Clips.put("storm-night.mp4", files.resolve(clip(i, shot)), shot.at());
            }
        }
        OstrelDatabase.write(files.resolve("store/roll/roll.db"), life.until(), this::roll);
        OstrelDatabase.write(files.resolve("store/sound/sound.db"), life.until(), OstrelMedia::sound);
        Clips.put("storm-night.mp4", files.resolve("roll/2025-11/V0001.mp4"), LocalDateTime.of(2025, 11, 14, 21, 31));
        Clips.put("slow-tide.m4a", files.resolve("sound/music/Slow tide.m4a"), SUMMER);
        for (var song : Songs.HERE) {
            Clips.put(song.clip(), files.resolve("sound/music").resolve(song.title() + ".m4a"), SUMMER);
        }
        Clips.put("gannet.m4a", files.resolve("sound/ring/Gannet.m4a"), SUMMER);
        Clips.put("gannet.m4a", files.resolve("sound/memos/Second verse.m4a"), LocalDateTime.of(2025, 12, 20, 20, 40));
        Clips.put("harbour-hour.mp3", files.resolve("sound/podcasts/Harbour hour 41.mp3"), SUMMER);
        Clips.put("lamp-keepers.mp4", files.resolve("films/The Lamp Keepers 1.mp4"), SUMMER);
    }

    static Roll.Drawing picture(Path files, Life life, int i) {
        var shot = life.shots().get(i);
        var file = files.resolve(path(i, shot));
        return heic(i, shot)
                ? Roll.shipped("island-%d.heic".formatted(i / 15 % 6), file, shot)
                : Roll.picture(file, shot);
    }

    private static boolean heic(int i, Shot shot) {
        return i % 15 == 0 && shot.motif() != Motif.SCREEN;
    }

    private static String path(int i, Shot shot) {
        var folder = shot.motif() == Motif.SCREEN
                ? "screens"
                : "%d-%02d".formatted(shot.at().getYear(), shot.at().getMonthValue());
        return "roll/%s/P%04d.%s".formatted(folder, i, heic(i, shot) ? "heic" : "jpg");
    }

    private static String clip(int i, Shot shot) {
        return path(i, shot).replaceFirst("\\.\\w+$", ".mp4");
    }

    private void roll(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE picture (id INTEGER PRIMARY KEY, path TEXT UNIQUE, taken INTEGER, favourite INTEGER,"
                        + " hidden INTEGER, binned INTEGER, burst INTEGER, clip TEXT)",
                "CREATE TABLE album (id INTEGER PRIMARY KEY, name TEXT)",
                "CREATE TABLE album_picture (album INTEGER, place INTEGER, picture INTEGER)",
                "CREATE INDEX picture_taken ON picture (taken)");
        for (int i = 0; i < life.shots().size(); i++) {
            var shot = life.shots().get(i);
            db.put(
                    "picture",
                    i + 1,
                    path(i, shot),
                    OstrelDatabase.micros(shot.at()),
                    in(Role.FAVOURITES).contains(i),
                    in(Role.HIDDEN).contains(i),
                    in(Role.BIN).contains(i)
                            ? OstrelDatabase.micros(life.until().minusDays(3))
                            : "",
                    shot.burst() == 0 ? "" : shot.burst(),
                    shot.moving() ? clip(i, shot) : "");
        }
        int album = 0;
        for (var each : life.albums()) {
            if (each.role() == Role.OWN) {
                db.put("album", ++album, each.name());
                for (int place = 0; place < each.shots().size(); place++) {
                    db.put("album_picture", album, place, each.shots().get(place) + 1);
                }
            }
        }
    }

    private List<Integer> in(Role role) {
        return life.albums().stream()
                .filter(album -> album.role() == role)
                .findFirst()
                .map(Life.Album::shots)
                .orElse(List.of());
    }

    private static void sound(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE track (id INTEGER PRIMARY KEY, path TEXT, title TEXT, artist TEXT, album TEXT, seconds INTEGER)",
                "CREATE TABLE playlist (id INTEGER PRIMARY KEY, name TEXT)",
                "CREATE TABLE playlist_track (playlist INTEGER, place INTEGER, track INTEGER)");
        int id = 0;
        for (var song : Songs.ALL) {
            db.put(
                    "track",
                    ++id,
                    Songs.HERE.contains(song) ? "sound/music/" + song.title() + ".m4a" : "",
                    song.title(),
                    "Skerrow Choir",
                    song.album(),
                    20);
        }
        db.put("playlist", 1, "On the tower");
        for (int place = 0; place < 4; place++) {
            db.put("playlist_track", 1, place, 6 - place);
        }
    }
}
