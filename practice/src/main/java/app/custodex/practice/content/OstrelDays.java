package app.custodex.practice.content;

import static app.custodex.practice.content.OstrelDatabase.micros;

import app.custodex.practice.island.Life;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** Voicemail, calendar, notes, web, alarms and apps as an Ostrel keeps them. */
final class OstrelDays {
    /** A zone with summer time, by the rules of central Europe. */
    private static final ZoneId ISLAND = ZoneId.of("CET");

    private final Life life;

    OstrelDays(Life life) {
        this.life = life;
    }

    void write(Path files) throws IOException {
        voicemail(files.resolve("store/voicemail"));
        calendar(files.resolve("store/calendar/calendar.db"));
        notes(files.resolve("store/notes"));
        web(files.resolve("store/web/web.db"));
        alarms(files.resolve("store/clock/clock.db"));
        apps(files.resolve("store/installed/installed.db"));
        for (var app : life.apps()) {
            if (app.data() && !app.identifier().startsWith("app.")) {
                AppData.write(files.resolve("apps").resolve(app.identifier()), life);
            }
        }
        Booklet.write(files.resolve("books/The two lights.epub"), LocalDateTime.of(2024, 10, 3, 19, 0));
        Clips.text(
                "Tide table 2026\n\n1 January  03:12  15:40\n",
                files.resolve("books/Tide table 2026.txt"),
                life.until());
    }

    private void voicemail(Path folder) throws IOException {
        var mails = life.voicemails();
        OstrelDatabase.write(
                folder.resolve("voicemail.db"),
                life.until(),
                db -> {
                    db.execute("CREATE TABLE mail (id INTEGER PRIMARY KEY, address TEXT, at INTEGER, seconds INTEGER,"
                            + " heard INTEGER, path TEXT)");
                    for (int i = 0; i < mails.size(); i++) {
                        var mail = mails.get(i);
                        db.put(
                                "mail",
                                i + 1,
                                mail.address(),
                                micros(mail.at()),
                                mail.seconds(),
                                mail.heard(),
                                "VM-%04d.amr".formatted(i + 1));
                    }
                },
                db -> {});
        for (int i = 0; i < mails.size(); i++) {
            Clips.put(
                    mails.get(i).sound(),
                    folder.resolve("VM-%04d.amr".formatted(i + 1)),
                    mails.get(i).at());
        }
    }

    private void calendar(Path file) throws IOException {
        OstrelDatabase.write(
                file,
                life.until(),
                db -> {
                    db.execute(
                            "CREATE TABLE calendar (id INTEGER PRIMARY KEY, name TEXT, account TEXT)",
                            "CREATE TABLE event (id INTEGER PRIMARY KEY, uid TEXT, calendar INTEGER, title TEXT,"
                                    + " place TEXT, notes TEXT, begins INTEGER, ends INTEGER, all_day INTEGER,"
                                    + " zone TEXT, rule TEXT, instead INTEGER)",
                            "CREATE TABLE exception (event INTEGER, at INTEGER)",
                            "CREATE TABLE alarm (event INTEGER, minutes INTEGER)",
                            "CREATE TABLE attendee (event INTEGER, address TEXT, name TEXT)",
                            "CREATE TABLE task (id INTEGER PRIMARY KEY, uid TEXT, calendar INTEGER, title TEXT,"
                                    + " notes TEXT, due INTEGER, done INTEGER)");
                    db.put("calendar", 1, "Island", "");
                    db.put("calendar", 2, "Choir", "choir@example.org");
                    for (int i = 0; i < life.events().size(); i++) {
                        event(db, i + 1, life.events().get(i));
                    }
                    for (int i = 0; i < life.todos().size(); i++) {
                        var todo = life.todos().get(i);
                        db.put(
                                "task",
                                i + 1,
                                "task-" + i + "@example.org",
                                1,
                                todo.title(),
                                "",
                                micros(todo.due()),
                                todo.done() ? micros(todo.due()) : "");
                    }
                },
                db -> {});
    }

    private void event(Tables db, int id, Life.Event event) throws SQLException {
        db.put(
                "event",
                id,
                "event-" + id + "@example.org",
                event.calendar().equals("Choir") ? 2 : 1,
                event.title(),
                event.place(),
                "",
                time(event, event.from()),
                time(event, event.from().plusMinutes(event.minutes())),
                event.allDay(),
                event.allDay() ? "" : ISLAND.getId(),
                event.rule(),
                "");
        for (var except : event.except()) {
            db.put("exception", id, time(event, except));
        }
        if (event.alarm() > 0) {
            db.put("alarm", id, event.alarm());
        }
        for (var attendee : event.attendees()) {
            db.put("attendee", id, attendee.mail(), attendee.fullName());
        }
    }

    /** Events keep to a zone with summer time; whole days are midnight in UTC. */
    private static long time(Life.Event event, LocalDateTime at) {
        var instant = event.allDay()
                ? at.toInstant(ZoneOffset.UTC)
                : at.atZone(ISLAND).toInstant();
        return micros(instant);
    }

    private void notes(Path folder) throws IOException {
        OstrelDatabase.write(
                folder.resolve("notes.db"),
                life.until(),
                db -> {
                    db.execute(
                            "CREATE TABLE folder (id INTEGER PRIMARY KEY, name TEXT)",
                            "CREATE TABLE note (id INTEGER PRIMARY KEY, folder INTEGER, title TEXT, text TEXT,"
                                    + " changed INTEGER, account TEXT, made INTEGER)",
                            "CREATE TABLE note_file (note INTEGER, path TEXT, name TEXT, type TEXT)");
                    db.put("folder", 1, "Boat");
                    db.put("folder", 2, "Choir");
                    for (int i = 0; i < life.notes().size(); i++) {
                        var note = life.notes().get(i);
                        db.put(
                                "note",
                                i + 1,
                                folder(note.folder()),
                                note.title(),
                                note.text(),
                                micros(note.at()),
                                "",
                                micros(note.made()));
                        if (note.drawing().isPresent()) {
                            db.put("note_file", i + 1, "files/harbour.webp", "harbour.webp", "image/webp");
                        }
                    }
                },
                db -> {});
        for (var note : life.notes()) {
            if (note.drawing().isPresent()) {
                Clips.put("harbour.webp", folder.resolve("files/harbour.webp"), note.at());
            }
        }
    }

    /** The number of a folder's row; nothing for none. */
    private static Object folder(String name) {
        return switch (name) {
            case "Boat", "Sea" -> 1;
            case "Choir", "Sea/Ferry" -> 2;
            default -> "";
        };
    }

    private void web(Path file) throws IOException {
        OstrelDatabase.write(
                file,
                life.until(),
                db -> {
                    db.execute(
                            "CREATE TABLE folder (id INTEGER PRIMARY KEY, parent INTEGER, title TEXT)",
                            "CREATE TABLE bookmark (id INTEGER PRIMARY KEY, folder INTEGER, title TEXT, address TEXT,"
                                    + " later INTEGER, added INTEGER)",
                            "CREATE TABLE visit (id INTEGER PRIMARY KEY, title TEXT, address TEXT, at INTEGER)");
                    db.put("folder", 1, "", "Sea");
                    db.put("folder", 2, 1, "Ferry");
                    for (int i = 0; i < life.marks().size(); i++) {
                        var mark = life.marks().get(i);
                        db.put(
                                "bookmark",
                                i + 1,
                                folder(mark.folder()),
                                mark.title(),
                                mark.address(),
                                mark.later(),
                                micros(mark.added().atTime(12, 0)));
                    }
                    var visits = life.visits();
                    for (int i = 0; i < visits.size(); i++) {
                        var visit = visits.get(i);
                        db.put("visit", i + 1, visit.title(), visit.address(), micros(visit.at()));
                    }
                },
                db -> {});
    }

    private void alarms(Path file) throws IOException {
        OstrelDatabase.write(file, life.until(), db -> {
            db.execute("CREATE TABLE alarm (id INTEGER PRIMARY KEY, label TEXT, hour INTEGER, minute INTEGER,"
                    + " days INTEGER, active INTEGER, sound TEXT)");
            for (int i = 0; i < life.alarms().size(); i++) {
                var alarm = life.alarms().get(i);
                int days = alarm.days().stream().mapToInt(day -> 1 << (day - 1)).sum();
                db.put("alarm", i + 1, alarm.label(), alarm.hour(), alarm.minute(), days, alarm.on(), "Gannet");
            }
        });
    }

    private void apps(Path file) throws IOException {
        OstrelDatabase.write(file, life.until(), db -> {
            db.execute("CREATE TABLE app (id TEXT PRIMARY KEY, name TEXT, version TEXT, bytes INTEGER,"
                    + " installed INTEGER, data TEXT)");
            for (var app : life.apps()) {
                db.put(
                        "app",
                        app.identifier(),
                        app.name(),
                        app.version(),
                        app.bytes(),
                        micros(app.installed().atTime(12, 0)),
                        app.data() ? "apps/" + AppData.folder(app) : "");
            }
        });
    }
}
