package app.custodex.practice.content;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** What the islanders wrote and rang about: a choir tour, a storm night, a boat sale. */
final class Chronicle {
    record Said(int person, boolean sent, LocalDateTime at, String text) {}

    record Call(int person, boolean made, LocalDateTime at, int seconds) {}

    record Event(String title, String place, LocalDateTime from, int minutes) {}

    record Note(String title, String text, LocalDateTime at) {}

    private static final List<String> STORM = List.of(
            "Wind is over the wall now. Ferry stays in. Are the boats doubled up?",
            "All but the small one. Going down with the lamp",
            "Lost two creels and a gate. Could be worse. Breakfast?",
            "Bring the kettle. And the dog 🐕");
    private static final List<String> CHOIR = List.of(
            "Bus leaves at ten past six, not ten to",
            "Who has the tuning fork?",
            "Second verse from bar 12, please",
            "شكراً جزيلاً 🌊",
            "Sheet music is in the blue folder. The OTHER blue folder.");
    private static final List<String> BOAT =
            List.of("4,200 and the oars stay", "3,900 and I take her tonight", "Does she leak?", "Only when it rains");

    private Chronicle() {}

    static List<Said> messages(long seed, int people, int count) {
        var random = new Random(seed + 3);
        var said = new ArrayList<Said>();
        var threads = List.of(STORM, CHOIR, BOAT);
        var at = LocalDateTime.of(2024, 10, 2, 7, 30);
        for (int i = 0; i < count; i++) {
            at = at.plusMinutes(20 + random.nextInt(1_500));
            int story = random.nextInt(threads.size());
            var lines = threads.get(story);
            int person = random.nextInt(3) == 0 ? random.nextInt(people) : Math.min(story, people - 1);
            said.add(new Said(person, random.nextBoolean(), at, lines.get(random.nextInt(lines.size()))));
        }
        return said;
    }

    static List<Call> calls(long seed, int people, int count) {
        var random = new Random(seed + 5);
        var calls = new ArrayList<Call>();
        var at = LocalDateTime.of(2025, 1, 4, 9, 0);
        for (int i = 0; i < count; i++) {
            at = at.plusMinutes(60 + random.nextInt(6_000));
            calls.add(new Call(random.nextInt(people), random.nextBoolean(), at, random.nextInt(1_800)));
        }
        return calls;
    }

    static List<Event> events() {
        return List.of(
                new Event("Choir practice", "School hall", LocalDateTime.of(2025, 9, 2, 19, 30), 120),
                new Event("Ferry inspection", "Skerrow Harbour", LocalDateTime.of(2025, 11, 14, 8, 0), 90),
                new Event("Choir tour, day one", "Lampholm", LocalDateTime.of(2026, 1, 9, 6, 10), 720),
                new Event("Boat viewing; bring a torch", "Upper Slip", LocalDateTime.of(2026, 1, 12, 17, 0), 45));
    }

    static List<Note> notes() {
        return List.of(
                new Note("Storm list", "Lamp\nRope, doubled\nKettle\nDog", LocalDateTime.of(2025, 11, 13, 22, 4)),
                new Note("Seaweed prices", "Dulse 14\nKelp 6\nSugar kelp 9", LocalDateTime.of(2025, 12, 1, 8, 20)),
                new Note(
                        "Setlist",
                        "1. The gannet\n2. Slow tide\n3. Encore: whatever Halvard wants",
                        LocalDateTime.of(2026, 1, 3, 21, 0)));
    }
}
