package app.custodex.practice.content;

import app.custodex.link.Family;
import app.custodex.practice.island.Life;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** Writes what an Ostrel holds: a database a kind, and media folders. */
public final class OstrelStore {
    private OstrelStore() {}

    /** Which tables an Ostrel has. */
    public enum System {
        NINE,
        ELEVEN
    }

    /**
     * Writes it. Pictures in full quality are not drawn, since that takes its time: {@link Roll} draws them one by one.
     *
     * @param people in its address book
     */
    public static StoreCounts write(
            Path files, Life life, List<Person> people, System system, Photographer.Quality quality)
            throws IOException {
        people(files.resolve("store/people/people.db"), people, life);
        new OstrelTalk(life).write(files.resolve("store"), system);
        new OstrelDays(life).write(files);
        new OstrelMedia(files, life).write();
        if (quality != Photographer.Quality.FULL) {
            Roll.draw(Roll.of(Family.OSTREL, files, life), new Photographer(quality));
        }
        return StoreCounts.of(people.size(), life);
    }

    private static void people(Path file, List<Person> people, Life life) throws IOException {
        int recent = Math.min(3, people.size() - 1);
        OstrelDatabase.write(
                file,
                life.until(),
                db -> {
                    db.execute(
                            "CREATE TABLE person (id INTEGER PRIMARY KEY, uid TEXT, prefix TEXT, given TEXT,"
                                    + " middle TEXT, family TEXT, suffix TEXT, sound_given TEXT, sound_family TEXT,"
                                    + " nickname TEXT, organisation TEXT, department TEXT, title TEXT, birthday TEXT,"
                                    + " note TEXT, changed INTEGER)",
                            "CREATE TABLE reach (person INTEGER, place INTEGER, way TEXT, label TEXT, value TEXT)",
                            "CREATE TABLE post (person INTEGER, place INTEGER, label TEXT, street TEXT,"
                                    + " town TEXT, region TEXT, code TEXT, country TEXT)",
                            "CREATE TABLE portrait (person INTEGER PRIMARY KEY, image BLOB)",
                            "CREATE TABLE circle (id INTEGER PRIMARY KEY, name TEXT UNIQUE)",
                            "CREATE TABLE circle_member (circle INTEGER, person INTEGER)",
                            "CREATE INDEX reach_person ON reach(person)");
                    people(db, people, 0, people.size() - recent);
                },
                db -> people(db, people, people.size() - recent, people.size()));
    }

    private static void people(Tables db, List<Person> people, int from, int to) throws SQLException {
        var circles = new ArrayList<String>();
        people.forEach(person -> person.circles().stream()
                .filter(name -> !circles.contains(name))
                .forEach(circles::add));
        if (from == 0) {
            for (int i = 0; i < circles.size(); i++) {
                db.put("circle", i + 1, circles.get(i));
            }
        }
        for (int id = from + 1; id <= to; id++) {
            var p = people.get(id - 1);
            db.put(
                    "person",
                    id,
                    p.uid(),
                    p.prefix(),
                    p.given(),
                    p.middle(),
                    p.family(),
                    p.suffix(),
                    p.phoneticGiven(),
                    p.phoneticFamily(),
                    p.nickname(),
                    p.organisation(),
                    p.department(),
                    p.title(),
                    p.birthday(),
                    p.note(),
                    OstrelDatabase.micros(Instant.ofEpochMilli(p.changedMillis())));
            for (int i = 0; i < p.reach().size(); i++) {
                var r = p.reach().get(i);
                db.put("reach", id, i, r.way(), r.label(), r.value());
            }
            for (int i = 0; i < p.posts().size(); i++) {
                var a = p.posts().get(i);
                db.put("post", id, i, a.label(), a.street(), a.town(), a.region(), a.code(), a.country());
            }
            if (p.portrait().length > 0) {
                db.put("portrait", id, p.portrait());
            }
            for (var name : p.circles()) {
                db.put("circle_member", circles.indexOf(name) + 1, id);
            }
        }
    }
}
