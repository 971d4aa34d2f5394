package app.custodex.practice.island;

import app.custodex.practice.island.Life.Alarm;
import app.custodex.practice.island.Life.App;
import app.custodex.practice.island.Life.Call;
import app.custodex.practice.island.Life.Event;
import app.custodex.practice.island.Life.Mark;
import app.custodex.practice.island.Life.Note;
import app.custodex.practice.island.Life.Outcome;
import app.custodex.practice.island.Life.Todo;
import app.custodex.practice.island.Life.Visit;
import app.custodex.practice.island.Life.Voicemail;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SplittableRandom;

/** Calls, appointments, notes and what else fills an islander's days. */
final class Days {
    private final long seed;
    private final Islander owner;
    private final LocalDateTime until;

    Days(long seed, Islander owner, LocalDateTime until) {
        this.seed = seed;
        this.owner = owner;
        this.until = until;
    }

    private boolean past(LocalDateTime at) {
        return !at.isAfter(until);
    }

    /** @param count how many, about; 0 for as many as people make */
    List<Call> calls(int count) {
        var calls = new ArrayList<>(calls(1.0));
        if (count > 0) {
            double scale = (double) count / Math.max(1, calls.size());
            calls = new ArrayList<>(calls(scale));
        }
        ringing(calls, Islander.HALVARD, Islander.FENNA, Outcome.MISSED, Islander.LAST_VOICEMAIL.minusMinutes(1), 0);
        ringing(calls, Islander.EILIF, Islander.JORUN, Outcome.TAKEN, LocalDateTime.of(2025, 11, 14, 20, 58), 41);
        ringing(calls, Islander.EILIF, Islander.FENNA, Outcome.TAKEN, LocalDateTime.of(2025, 11, 4, 7, 2), 380);
        ringing(calls, Islander.JORUN, Islander.IVO, Outcome.TAKEN, LocalDateTime.of(2026, 1, 12, 18, 20), 65);
        calls.removeIf(call -> !past(call.at()));
        calls.sort(Comparator.comparing(Call::at));
        return calls;
    }

    /** Calls between two islanders on a day are the same on both phones. */
    private List<Call> calls(double scale) {
        var calls = new ArrayList<Call>();
        for (var other : Islander.values()) {
            if (other == owner) {
                continue;
            }
            var first = owner.ordinal() < other.ordinal() ? owner : other;
            var second = first == owner ? other : owner;
            double perDay = (0.004 + 0.012 * first.sharedWith(second).size()) * scale;
            for (var day = Life.BEGIN; !day.isAfter(until.toLocalDate()); day = day.plusDays(1)) {
                var random = new SplittableRandom(
                        seed * 131_071 + Objects.hash(first.latin(), second.latin(), day.toEpochDay()));
                int many = (int) perDay + (random.nextDouble() < perDay % 1 ? 1 : 0);
                for (int i = 0; i < many; i++) {
                    var at = day.atTime(7 + random.nextInt(15), random.nextInt(60), random.nextInt(60));
                    boolean firstCalls = random.nextBoolean();
                    int end = random.nextInt(5);
                    int seconds = end < 3 ? 5 + random.nextInt(random.nextInt(4) == 0 ? 2_400 : 300) : 0;
                    boolean video = random.nextInt(8) == 0;
                    if (first.reachable(at) && second.reachable(at)) {
                        boolean made = firstCalls == (first == owner);
                        var outcome = made
                                ? Outcome.MADE
                                : end < 3 ? Outcome.TAKEN : end == 3 ? Outcome.MISSED : Outcome.DECLINED;
                        calls.add(new Call(
                                other.number(),
                                outcome,
                                video,
                                random.nextInt(30) == 7 ? "Kitewire" : "",
                                at,
                                seconds));
                    }
                }
            }
        }
        return calls;
    }

    private void ringing(
            List<Call> calls, Islander caller, Islander called, Outcome outcome, LocalDateTime at, int seconds) {
        if (owner == caller || owner == called) {
            calls.add(new Call(
                    (owner == caller ? called : caller).number(),
                    owner == caller ? Outcome.MADE : outcome,
                    false,
                    "",
                    at,
                    seconds));
        }
    }

    List<Voicemail> voicemails() {
        var mails = new ArrayList<Voicemail>();
        if (owner == Islander.FENNA) {
            mails.add(new Voicemail(
                    Islander.DAGNY.number(), LocalDateTime.of(2025, 9, 30, 12, 40), 9, true, "grandfather.amr"));
            mails.add(new Voicemail(Islander.HALVARD.number(), Islander.LAST_VOICEMAIL, 9, true, "grandfather.amr"));
        } else {
            mails.add(new Voicemail(
                    Islander.EILIF.number(), LocalDateTime.of(2025, 11, 14, 20, 56), 9, true, "grandfather.amr"));
        }
        mails.removeIf(mail -> !past(mail.at()));
        return mails;
    }

    List<Event> events() {
        var nobody = List.<Islander>of();
        var always = List.<LocalDateTime>of();
        var events = new ArrayList<Event>();
        if (owner.circles().contains(Circle.CHOIR)) {
            events.add(new Event(
                    "Choir",
                    "Choir practice",
                    "School hall",
                    LocalDateTime.of(2025, 9, 2, 19, 30),
                    120,
                    false,
                    "FREQ=WEEKLY;BYDAY=TU;UNTIL=20260630T170000Z",
                    // Two of them fall out; in between, the clocks change.
                    List.of(LocalDateTime.of(2025, 11, 18, 19, 30), LocalDateTime.of(2025, 12, 30, 19, 30)),
                    60,
                    List.of(Islander.MAREN, Islander.CORMAC, Islander.SUNNIVA)));
            events.add(new Event(
                    "Choir",
                    "Choir tour, day one",
                    "Lampholm",
                    LocalDateTime.of(2026, 1, 9, 6, 10),
                    720,
                    false,
                    "",
                    always,
                    720,
                    List.of(Islander.MAREN, Islander.CORMAC, Islander.AGLAYA)));
            events.add(new Event(
                    "Choir",
                    "Midsummer singing",
                    "Skerrow Harbour",
                    LocalDateTime.of(2025, 6, 21, 21, 0),
                    180,
                    false,
                    "",
                    always,
                    60,
                    List.of(Islander.MAREN)));
        }
        events.add(new Event(
                "Island",
                "Ferry inspection",
                "Skerrow Harbour",
                LocalDateTime.of(2025, 11, 14, 8, 0),
                90,
                false,
                "FREQ=MONTHLY;BYDAY=2FR;COUNT=12",
                always,
                30,
                nobody));
        events.add(new Event(
                "Island",
                "Boat viewing; bring a torch",
                "Upper Slip",
                LocalDateTime.of(2026, 1, 12, 17, 0),
                45,
                false,
                "",
                always,
                15,
                List.of(Islander.IVO)));
        events.add(new Event(
                "Island",
                "Grandad's day",
                "",
                LocalDateTime.of(2025, 11, 14, 0, 0),
                1_440,
                true,
                "FREQ=YEARLY",
                always,
                0,
                nobody));
        events.removeIf(event -> !past(event.from().minusDays(40))); // entered some weeks ahead
        return events;
    }

    List<Todo> todos() {
        var todos = new ArrayList<>(List.of(
                new Todo("Return the tuning fork", LocalDateTime.of(2026, 1, 20, 12, 0), false),
                new Todo("Mend the gate", LocalDateTime.of(2025, 11, 20, 12, 0), true),
                new Todo("Count the creels", LocalDateTime.of(2025, 6, 1, 12, 0), true)));
        todos.removeIf(todo -> !past(todo.due().minusDays(10)));
        return todos;
    }

    List<Note> notes() {
        var notes = new ArrayList<>(List.of(
                new Note(
                        "Boat",
                        "Storm list",
                        "- [x] Lamp\n- [x] Rope, doubled\n- [ ] Kettle\n- [ ] Dog",
                        LocalDateTime.of(2025, 11, 13, 21, 40),
                        LocalDateTime.of(2025, 11, 13, 22, 4),
                        Optional.empty()),
                new Note(
                        "",
                        "Seaweed prices",
                        past(LocalDateTime.of(2025, 12, 1, 8, 20))
                                ? "Dulse 14\nKelp 6\nSugar kelp 9"
                                : "Dulse 12\nKelp 6\nSugar kelp 8",
                        LocalDateTime.of(2024, 10, 4, 8, 20),
                        past(LocalDateTime.of(2025, 12, 1, 8, 20))
                                ? LocalDateTime.of(2025, 12, 1, 8, 20)
                                : LocalDateTime.of(2024, 10, 4, 8, 20),
                        Optional.empty()),
                new Note(
                        "Choir",
                        "Setlist",
                        "1. The gannet\n2. Slow tide\n3. Encore: whatever Halvard wants",
                        LocalDateTime.of(2025, 5, 20, 19, 30),
                        LocalDateTime.of(2025, 6, 3, 21, 0),
                        Optional.empty()),
                new Note(
                        "Choir",
                        "Words for Friday",
                        "He kept the light for forty-one years and the third step for longer.\n\nبحر هادئ · Спокойное море · 静かな海",
                        LocalDateTime.of(2025, 11, 6, 23, 10),
                        LocalDateTime.of(2025, 11, 6, 23, 10),
                        Optional.empty()),
                new Note(
                        "Boat",
                        "Where she leaks",
                        "Two planks up from the keel, by the third rib. See the drawing.",
                        LocalDateTime.of(2025, 11, 15, 9, 12),
                        LocalDateTime.of(2026, 1, 12, 18, 30),
                        Optional.of(Motif.BOAT))));
        notes.removeIf(note -> !past(note.at()));
        return notes;
    }

    List<Mark> marks() {
        var marks = new ArrayList<>(List.of(
                new Mark("Sea", "Tide tables", "https://example.org/tides", LocalDate.of(2024, 9, 18), false),
                new Mark(
                        "Sea/Ferry",
                        "Ferry times",
                        "https://example.net/ferry?from=nordvoe",
                        LocalDate.of(2025, 1, 12),
                        false),
                new Mark("Sea", "Seal count, all years", "https://example.org/seals", LocalDate.of(2024, 6, 2), false),
                new Mark("", "Knots, all of them", "https://example.com/knots", LocalDate.of(2025, 10, 2), true)));
        marks.removeIf(mark -> mark.added().isAfter(until.toLocalDate()));
        return marks;
    }

    List<Visit> visits() {
        var random = new SplittableRandom(seed * 8_191 + owner.ordinal());
        var pages = marks();
        var visits = new ArrayList<Visit>();
        for (int i = 0; i < 140 && !pages.isEmpty(); i++) {
            var page = pages.get(random.nextInt(pages.size()));
            var at = until.toLocalDate()
                    .minusDays(1 + random.nextInt(180))
                    .atTime(8 + random.nextInt(14), random.nextInt(60));
            if (!at.toLocalDate().isBefore(page.added())) {
                visits.add(new Visit(page.title(), page.address(), at));
            }
        }
        visits.sort(Comparator.comparing(Visit::at));
        return visits;
    }

    List<App> apps() {
        var apps = new ArrayList<>(List.of(
                new App("app.kitewire", "Kitewire", "7.2", 41_000_000, LocalDate.of(2023, 1, 22), true),
                new App("app.burrow", "Burrow", "3.0.1", 18_000_000, LocalDate.of(2024, 3, 4), true),
                new App("org.example.tides", "Tide clock", "2.4", 6_200_000, LocalDate.of(2023, 5, 1), false),
                new App("org.example.harbour-log", "Harbour log", "1.9", 9_800_000, LocalDate.of(2024, 8, 19), true),
                new App("org.example.storm-watch", "Storm watch", "5.1", 23_000_000, LocalDate.of(2025, 10, 30), true),
                new App("net.example.ferry-pass", "Ferry pass", "4.0", 12_500_000, LocalDate.of(2025, 4, 11), true)));
        apps.removeIf(app -> app.installed().isAfter(until.toLocalDate()));
        return apps;
    }

    List<Alarm> alarms() {
        return List.of(
                new Alarm("First ferry", 5, 10, List.of(1, 2, 3, 4, 5), true),
                new Alarm("Choir bus ⏰", 5, 40, List.of(), false),
                new Alarm("Turn the bread", 15, 30, List.of(6), true));
    }
}
