package app.custodex.practice.content;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;

/**
 * Three years of an islander's life: a choir tour, a storm night, a boat sale, grandfather's voicemail, and the small talk in
 * between. Times are by the island's clock. The same seed gives the same life.
 */
final class Chronicle {
    /** Who wrote something, when it was the phone's owner. */
    static final int OWNER = -1;

    /** No message. */
    static final int NONE = -1;

    /**
     * A conversation.
     *
     * @param members places in the list of people
     */
    record Talk(String name, boolean group, List<Integer> members, String service) {}

    /**
     * A message.
     *
     * @param by a place in the list of people, or {@link #OWNER}
     * @param replyTo a place in the list of messages, or {@link #NONE}
     * @param clip a picture or sound that hangs on it; may be empty
     * @param signs who reacted how
     */
    record Said(
            int talk,
            int by,
            LocalDateTime at,
            String text,
            int replyTo,
            String clip,
            boolean edited,
            boolean removed,
            List<Sign> signs) {
        boolean sent() {
            return by == OWNER;
        }
    }

    record Sign(int by, String sign) {}

    enum Outcome {
        MADE,
        TAKEN,
        MISSED,
        DECLINED
    }

    record Call(int person, Outcome outcome, boolean video, LocalDateTime at, int seconds) {}

    record Mail(int person, LocalDateTime at, int seconds, boolean heard, String clip) {}

    record Event(
            String calendar,
            String title,
            String place,
            LocalDateTime from,
            int minutes,
            boolean allDay,
            String rule,
            List<LocalDateTime> except,
            int alarm,
            List<Integer> attendees) {}

    record Todo(String title, LocalDateTime due, boolean done) {}

    record Note(String folder, String title, String text, LocalDateTime at, String drawing) {}

    record Mark(String folder, String title, String address, LocalDate added, boolean later) {}

    record Visit(String title, String address, LocalDateTime at) {}

    private static final LocalDate BEGIN = LocalDate.of(2023, 1, 21);
    private static final int DAYS = 1_092;

    private static final List<String> STORM = List.of(
            "Wind is over the wall now. Ferry stays in. Are the boats doubled up?",
            "All but the small one. Going down with the lamp",
            "Don't. Wait for Ivo, two of you or nobody",
            "Lost two creels and a gate. Could be worse. Breakfast?",
            "Bring the kettle. And the dog 🐕");
    private static final List<String> CHOIR = List.of(
            "Bus leaves at ten past six, not ten to",
            "In the morning?",
            "In the morning, Halvard 🎶",
            "Who has the tuning fork?",
            "Second verse from bar 12, please",
            "شكراً جزيلاً 🌊",
            "Sheet music is in the blue folder. The OTHER blue folder.");
    private static final List<String> BOAT = List.of(
            "4,200 and the oars stay",
            "3,900 and I take her tonight",
            "Does she leak?",
            "Only when it rains",
            "Then 4,000 and you show me where",
            "Sold. Bring a bucket");
    private static final List<String> GRANDFATHER = List.of(
            "Did you hear? He rang before it happened. It's still on my phone",
            "Keep it. Don't let anybody touch that phone",
            "I listen to it in the evenings. He says to mind the third step",
            "Everybody minds the third step now");
    private static final List<String> SCRIPTS = List.of(
            "今夜は海が光ってる",
            "明日、港で会いましょう",
            "शुक्रिया! कल मिलते हैं",
            "Завтра паром в шесть?",
            "תודה רבה, נתראה מחר",
            "내일 등대에서 봐요",
            "พรุ่งนี้เจอกันที่ท่าเรือ",
            "Τα λέμε στο λιμάνι");

    /** Small talk in which each line answers the one before it. */
    private static final List<List<String>> SMALL_TALK = List.of(
            List.of(
                    "Is the ferry running?",
                    "Till four. After that ask the wind",
                    "Keep me a seat by the stove",
                    "Yours since 1998"),
            List.of("Kelp is in. Twelve crates", "Twelve! Who's drying?", "You are", "Thought so. Bring rope"),
            List.of("Soup at ours?", "What sort?", "The sort with fish in it", "Then yes. Six?", "Six. Bring bread"),
            List.of(
                    "The bell tower light is out again",
                    "Saw it. Ladder's at the school",
                    "I'll hold the ladder",
                    "You always say that"),
            List.of(
                    "Can you take the little one on Thursday?",
                    "After three I can",
                    "She'll want to see the seals",
                    "So will I"),
            List.of("Found your glove", "Left or right?", "Left", "Then the right one is lonely. Coming by"),
            List.of("How was the dentist?", "Short. He has no boat and no news", "And the tooth?", "In a jar"),
            List.of("Which day is bin day now?", "Wednesday, odd weeks", "Is this one odd?", "All of them are, here"),
            List.of("Practice is at the hall, not the church", "Since when?", "Since the organ sneezed"),
            List.of("Happy birthday! 🎂", "You're a day early", "Then I'm first", "You are ❤️"));

    private static final List<List<String>> WINTER = List.of(
            List.of("Pipes frozen at number 4", "Hairdryer, and patience", "We have neither", "On my way with both"),
            List.of(
                    "First snow at the lighthouse ❄️",
                    "Picture or it didn't happen",
                    "Look out of your window",
                    "Oh!"));
    private static final List<List<String>> SUMMER = List.of(
            List.of("Swim at the slip?", "How cold?", "You'll remember it", "Five minutes"),
            List.of(
                    "Tourists asked where the bridge is",
                    "What did you say?",
                    "That it's on the other island",
                    "Which other island?"));
    private static final List<String> SIGNS = List.of("👍", "❤️", "😂", "🌊", "🙏");
    private static final List<String> CLIPS = List.of("harbour.webp", "island-2.heic", "gannet.opus");

    private final Random random;
    private final int people;
    private final List<Talk> talks = new ArrayList<>();
    private final List<Said> said = new ArrayList<>();

    private Chronicle(long seed, int people) {
        this.random = new Random(seed * 31 + 3);
        this.people = people;
    }

    /** What was said, with the conversations in which it was. */
    record Talks(List<Talk> talks, List<Said> said) {}

    /** @param count how many messages, about; the stories come on top */
    static Talks talks(long seed, int people, int count) {
        return new Chronicle(seed, people).talk(count);
    }

    private int member(int number) {
        return Math.min(number, people - 1);
    }

    private Talks talk(int count) {
        talks.add(new Talk("Skerrow choir", true, List.of(member(0), member(1), member(2), member(3)), "MMS"));
        talks.add(new Talk("", false, List.of(member(3)), "SMS"));
        talks.add(new Talk("", false, List.of(member(2)), "SMS"));
        talks.add(new Talk("", false, List.of(member(0)), "SMS"));
        talks.add(new Talk("Storm watch, east", true, List.of(member(2), member(3), member(4)), "MMS"));
        for (int i = 0; i < Math.min(20, people); i++) {
            talks.add(new Talk("", false, List.of(random.nextInt(people)), "SMS"));
        }
        story(0, LocalDateTime.of(2026, 1, 8, 18, 2), CHOIR, 3);
        story(4, LocalDateTime.of(2025, 11, 14, 21, 12), STORM, 19);
        story(2, LocalDateTime.of(2026, 1, 12, 17, 40), BOAT, 6);
        story(1, LocalDateTime.of(2025, 11, 5, 20, 30), GRANDFATHER, 14);
        while (said.size() < count) {
            smallTalk();
        }
        return new Talks(talks, inOrder(said));
    }

    /** Puts messages in the order of their times; what they answer goes with them. */
    private static List<Said> inOrder(List<Said> all) {
        var order = new ArrayList<Integer>();
        for (int i = 0; i < all.size(); i++) {
            order.add(i);
        }
        order.sort(Comparator.comparing(i -> all.get(i).at()));
        var place = new int[all.size()];
        for (int i = 0; i < order.size(); i++) {
            place[order.get(i)] = i;
        }
        return order.stream()
                .map(all::get)
                .map(s -> new Said(
                        s.talk(),
                        s.by(),
                        s.at(),
                        s.text(),
                        s.replyTo() == NONE ? NONE : place[s.replyTo()],
                        s.clip(),
                        s.edited(),
                        s.removed(),
                        s.signs()))
                .toList();
    }

    private void story(int talk, LocalDateTime begin, List<String> lines, int minutes) {
        var at = begin;
        for (int i = 0; i < lines.size(); i++) {
            say(talk, i, at, lines.get(i), i == 2 ? said.size() - 1 : NONE);
            at = at.plusMinutes(1 + random.nextInt(minutes));
        }
    }

    private void smallTalk() {
        var day = BEGIN.plusDays(random.nextInt(DAYS));
        int hour = 7 + (int) Math.abs(random.nextGaussian() * 5) % 15;
        var at = day.atTime(LocalTime.of(hour, random.nextInt(60)));
        boolean winter = day.getMonthValue() < 3 || day.getMonthValue() > 11;
        boolean summer = day.getMonthValue() > 5 && day.getMonthValue() < 9;
        int talk = random.nextInt(3) == 0 ? random.nextInt(5) : random.nextInt(talks.size());
        if (random.nextInt(12) == 0) {
            say(talk, 1, at, SCRIPTS.get(random.nextInt(SCRIPTS.size())), NONE);
            return;
        }
        var from = winter && random.nextInt(2) == 0 ? WINTER : summer && random.nextInt(2) == 0 ? SUMMER : SMALL_TALK;
        var lines = from.get(random.nextInt(from.size()));
        int begins = random.nextInt(2);
        for (int i = 0; i < lines.size(); i++) {
            say(talk, begins + i, at, lines.get(i), random.nextInt(9) == 0 && i > 0 ? said.size() - 1 : NONE);
            at = at.plusMinutes(1 + random.nextInt(20));
        }
    }

    /** @param turn whose turn it is: the owner's and the others' alternate */
    private void say(int talk, int turn, LocalDateTime at, String text, int replyTo) {
        var members = talks.get(talk).members();
        int by = turn % 2 == 0 ? OWNER : members.get((turn / 2) % members.size());
        int other = members.get(random.nextInt(members.size()));
        var signs = random.nextInt(11) == 0
                ? List.of(new Sign(by == OWNER ? other : OWNER, SIGNS.get(random.nextInt(SIGNS.size()))))
                : List.<Sign>of();
        var clip = random.nextInt(24) == 0 ? CLIPS.get(random.nextInt(CLIPS.size())) : "";
        said.add(new Said(
                talk,
                by,
                at.withSecond(random.nextInt(60)),
                text,
                replyTo,
                clip,
                random.nextInt(40) == 0,
                random.nextInt(90) == 0,
                signs));
    }

    static List<Call> calls(long seed, int people, int count) {
        var random = new Random(seed + 5);
        var calls = new ArrayList<Call>();
        calls.add(new Call(0, Outcome.MISSED, false, LocalDateTime.of(2025, 11, 3, 18, 11), 0));
        calls.add(new Call(Math.min(4, people - 1), Outcome.TAKEN, false, LocalDateTime.of(2025, 11, 14, 20, 58), 41));
        while (calls.size() < count) {
            var at = BEGIN.plusDays(random.nextInt(DAYS)).atTime(7 + random.nextInt(15), random.nextInt(60));
            var outcome = Outcome.values()[Math.min(random.nextInt(5), 3)];
            boolean talked = outcome == Outcome.MADE || outcome == Outcome.TAKEN;
            calls.add(new Call(
                    random.nextInt(people),
                    outcome,
                    random.nextInt(8) == 0,
                    at.withSecond(random.nextInt(60)),
                    talked ? 5 + random.nextInt(1_800) : 0));
        }
        calls.sort(Comparator.comparing(Call::at));
        return calls;
    }

    static List<Mail> mails() {
        return List.of(new Mail(0, LocalDateTime.of(2025, 11, 3, 18, 12), 9, true, "grandfather.amr"));
    }

    static List<Event> events() {
        var nobody = List.<Integer>of();
        var always = List.<LocalDateTime>of();
        return List.of(
                new Event(
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
                        List.of(0, 1, 2)),
                new Event(
                        "Island",
                        "Ferry inspection",
                        "Skerrow Harbour",
                        LocalDateTime.of(2025, 11, 14, 8, 0),
                        90,
                        false,
                        "",
                        always,
                        30,
                        nobody),
                new Event(
                        "Choir",
                        "Choir tour, day one",
                        "Lampholm",
                        LocalDateTime.of(2026, 1, 9, 6, 10),
                        720,
                        false,
                        "",
                        always,
                        720,
                        List.of(1, 2, 3)),
                new Event(
                        "Island",
                        "Boat viewing; bring a torch",
                        "Upper Slip",
                        LocalDateTime.of(2026, 1, 12, 17, 0),
                        45,
                        false,
                        "",
                        always,
                        15,
                        List.of(2)),
                new Event(
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
    }

    static List<Todo> todos() {
        return List.of(
                new Todo("Return the tuning fork", LocalDateTime.of(2026, 1, 20, 12, 0), false),
                new Todo("Mend the gate", LocalDateTime.of(2025, 11, 20, 12, 0), true));
    }

    static List<Note> notes() {
        return List.of(
                new Note(
                        "Boat",
                        "Storm list",
                        "- [x] Lamp\n- [x] Rope, doubled\n- [ ] Kettle\n- [ ] Dog",
                        LocalDateTime.of(2025, 11, 13, 22, 4),
                        ""),
                new Note(
                        "",
                        "Seaweed prices",
                        "Dulse 14\nKelp 6\nSugar kelp 9",
                        LocalDateTime.of(2025, 12, 1, 8, 20),
                        ""),
                new Note(
                        "Choir",
                        "Setlist",
                        "1. The gannet\n2. Slow tide\n3. Encore: whatever Halvard wants",
                        LocalDateTime.of(2026, 1, 3, 21, 0),
                        ""),
                new Note(
                        "Boat",
                        "Where she leaks",
                        "Two planks up from the keel, by the third rib. See the drawing.",
                        LocalDateTime.of(2026, 1, 12, 18, 30),
                        "harbour.webp"));
    }

    static List<Mark> marks() {
        return List.of(
                new Mark("Sea", "Tide tables", "https://example.org/tides", LocalDate.of(2024, 9, 18), false),
                new Mark(
                        "Sea/Ferry",
                        "Ferry times",
                        "https://example.net/ferry?from=nordvoe",
                        LocalDate.of(2025, 1, 12),
                        false),
                new Mark("", "Knots, all of them", "https://example.com/knots", LocalDate.of(2025, 10, 2), true));
    }

    static List<Visit> visits(long seed, int count) {
        var random = new Random(seed + 9);
        var pages = marks();
        var visits = new ArrayList<Visit>();
        for (int i = 0; i < count; i++) {
            var page = pages.get(random.nextInt(pages.size()));
            visits.add(new Visit(
                    page.title(),
                    page.address(),
                    LocalDate.of(2026, 1, 18)
                            .minusDays(random.nextInt(90))
                            .atTime(8 + random.nextInt(14), random.nextInt(60))));
        }
        visits.sort(Comparator.comparing(Visit::at));
        return visits;
    }
}
