package app.custodex.practice.content;

import app.custodex.practice.content.Person.Post;
import app.custodex.practice.content.Person.Reach;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.UUID;

/**
 * Invented islanders of Skerrow. Telephone numbers come only from ranges kept for fiction: Ofcom, "Telephone numbers
 * for use in TV and radio drama programmes" (07700 900000–900999, 01632 960000–960999); North America 555-0100 to
 * 555-0199. Mail and web addresses lie under the domains of RFC 2606 §3.
 */
public final class People {
    private static final long NOW = Instant.parse("2026-01-18T20:00:00Z").toEpochMilli();

    private static final List<String> GIVEN = List.of(
            "Fenna",
            "Jorun",
            "Halvard",
            "Maren",
            "Ivo",
            "Noor",
            "Sunniva",
            "Eilif",
            "Tove",
            "Brann",
            "Alva",
            "Odd",
            "Runa",
            "Kjell",
            "Signe",
            "Torben",
            "Ylva",
            "Aksel",
            "Liv",
            "Snorre",
            "Ragna",
            "Isak",
            "Dagny",
            "Pål",
            "Oona",
            "Cormac",
            "Beathag",
            "Fearn",
            "Lowri",
            "Emrys",
            "Séa",
            "Zofja",
            "Łucja",
            "Ömür",
            "Çağrı",
            "Ngọc",
            "Thandeka",
            "Amara",
            "Kofi",
            "Leilani");
    private static final List<String> FAMILY = List.of(
            "Rook",
            "Tasch",
            "Quill",
            "Kelp",
            "Said",
            "Marrow",
            "Skarv",
            "Holm",
            "Tangen",
            "Brekke",
            "Saltvik",
            "Ness",
            "Voe",
            "Geo",
            "Stack",
            "Wrack",
            "Dulse",
            "Fulmar",
            "Petrel",
            "Lomvi",
            "Teiste",
            "Sund",
            "Vik",
            "Haug",
            "Ó Dálach",
            "MacRuarie",
            "van der Zee",
            "Åkerbrygg",
            "Østgard",
            "Ármannsdal",
            "Żuraw",
            "Şahinoğ",
            "Lindqvist-Holm",
            "D'Arvor",
            "Nuñoa");
    private static final List<String[]> OTHER_SCRIPTS = List.of(
            new String[] {"نور", "سعيد", "Noor", "Said"},
            new String[] {"海斗", "浜名", "かいと", "はまな"},
            new String[] {"미르", "한바다", "Mir", "Hanbada"},
            new String[] {"Аглая", "Прибоева", "Aglaya", "Priboeva"},
            new String[] {"Νεφέλη", "Αλμύρα", "Nefeli", "Almyra"},
            new String[] {"सागर", "तटकर", "Sagar", "Tatkar"},
            new String[] {"נועם", "חופי", "Noam", "Hofi"},
            new String[] {"晓岚", "陆", "Xiaolan", "Lu"});
    private static final List<String> WORK = List.of(
            "Skerrow Ferry Terminal",
            "Seaweed Farm Nordvoe",
            "Skerrow Choir",
            "Lighthouse Guides",
            "School Kitchen",
            "Harbour Office",
            "Slipway & Sons",
            "Storm Watch; Island Radio",
            "Knit, Purl and Co.");
    private static final List<String> TITLES = List.of(
            "deckhand", "farmer", "choir leader", "guide", "school cook", "harbour master", "boat builder", "keeper");
    private static final List<String> STREETS =
            List.of("Tide Lane", "Lamp Stair", "Upper Slip", "Kelp Row", "Choir Close", "Gannet Brae");
    private static final List<String> TOWNS = List.of("Nordvoe", "Skerrow Harbour", "Easter Geo", "Lampholm");
    private static final List<String> CIRCLES = List.of("Family", "Choir", "Ferry", "Boat sale", "School");

    private final Random random;

    public People(long seed) {
        random = new Random(seed * 7919 + 17);
    }

    /** The first ones belong to the stories and are always there. */
    public List<Person> take(int count) {
        var people = new ArrayList<Person>(count);
        for (int i = 0; i < count; i++) {
            people.add(i < STORY.size() ? story(STORY.get(i), i) : islander(i));
        }
        return people;
    }

    private record Told(String given, String family, String nickname, String work, String title, String note) {}

    private static final List<Told> STORY = List.of(
            new Told(
                    "Halvard",
                    "Rook",
                    "Grandad",
                    "Lighthouse Guides",
                    "keeper",
                    "Voicemail of 3 November kept.\nDo not delete."),
            new Told(
                    "Maren",
                    "Quill",
                    "",
                    "Skerrow Choir",
                    "choir leader",
                    "Choir tour: 11 people, two cars, one accordion 🪗"),
            new Told("Ivo", "Kelp", "", "Seaweed Farm Nordvoe", "farmer", "Has the small boat; wants 4,200 for it"),
            new Told("Jorun", "Tasch", "Jo", "Skerrow Ferry Terminal", "deckhand", ""),
            new Told("Storm Watch", "", "", "Storm Watch; Island Radio", "", "Rings at force nine 🌊"));

    private Person story(Told told, int i) {
        var base = islander(i);
        return new Person(
                base.uid(),
                "",
                told.given(),
                "",
                told.family(),
                "",
                "",
                "",
                told.nickname(),
                told.work(),
                "",
                told.title(),
                i == 0 ? "1941-11-14" : base.birthday(),
                told.note(),
                base.reach(),
                base.posts(),
                List.of(CIRCLES.get(i % CIRCLES.size())),
                Photographer.portrait(100 + i),
                base.changedMillis());
    }

    private Person islander(int i) {
        boolean scripts = random.nextInt(14) == 0;
        var other = pick(OTHER_SCRIPTS);
        var given = scripts ? other[0] : pick(GIVEN);
        var family = scripts ? other[1] : pick(FAMILY);
        var latin = ((scripts ? other[2] : given) + "." + (scripts ? other[3] : family))
                .toLowerCase(java.util.Locale.ROOT)
                .replaceAll("[^a-z.]", "");
        var reach = new ArrayList<Reach>();
        reach.add(new Reach("phone", pick(List.of("mobile", "mobile", "home", "Boat; harbour, north")), mobile()));
        if (random.nextInt(3) == 0) {
            reach.add(new Reach("phone", pick(List.of("work", "home", "fax")), landline()));
        }
        if (random.nextInt(9) == 0) {
            reach.add(new Reach("phone", "abroad", "+1 202 555 01%02d".formatted(random.nextInt(100))));
        }
        if (random.nextInt(4) != 0) {
            reach.add(new Reach("mail", pick(List.of("home", "work")), latin + i + "@example.org"));
        }
        if (random.nextInt(8) == 0) {
            reach.add(new Reach("web", "homepage", "https://example.net/" + latin + "?a=1;b=2,3"));
        }
        if (random.nextInt(10) == 0) {
            reach.add(new Reach("chat", "Kitewire", latin + i));
        }
        var posts = random.nextInt(4) == 0
                ? List.of(new Post(
                        pick(List.of("home", "work")),
                        (1 + random.nextInt(60)) + " " + pick(STREETS),
                        pick(TOWNS),
                        "Skerrow",
                        "SK%d %dVO".formatted(1 + random.nextInt(9), random.nextInt(10)),
                        "Skerrow"))
                : List.<Post>of();
        return new Person(
                new UUID(random.nextLong(), random.nextLong()).toString(),
                random.nextInt(25) == 0 ? "Dr" : "",
                given,
                random.nextInt(6) == 0 ? pick(GIVEN) : "",
                i >= STORY.size() + 400 ? family + " " + i : family,
                random.nextInt(40) == 0 ? "Jr" : "",
                scripts ? other[2] : "",
                scripts ? other[3] : "",
                random.nextInt(9) == 0 ? given.substring(0, 1) : "",
                random.nextInt(3) == 0 ? pick(WORK) : "",
                random.nextInt(12) == 0 ? "Boats" : "",
                random.nextInt(6) == 0 ? pick(TITLES) : "",
                birthday(),
                random.nextInt(7) == 0 ? note() : "",
                reach,
                posts,
                random.nextInt(4) == 0 ? List.of(pick(CIRCLES)) : List.of(),
                random.nextInt(6) == 0 ? Photographer.portrait(random.nextInt(24)) : new byte[0],
                NOW - random.nextInt(900) * 86_400_000L - random.nextInt(86_400_000));
    }

    private String birthday() {
        int which = random.nextInt(8);
        int month = 1 + random.nextInt(12);
        int day = 1 + random.nextInt(28);
        if (which == 0) {
            return "--%02d-%02d".formatted(month, day);
        }
        return which < 3 ? "%d-%02d-%02d".formatted(1938 + random.nextInt(72), month, day) : "";
    }

    private String note() {
        return pick(List.of(
                "Sings alto; can't read music, doesn't need to",
                "Owes me a creel.\nAnd a gate.",
                "शुक्रिया! / شكراً جزيلاً 🌊",
                "Key is under the third lobster pot, \"left\" of the door",
                "Allergic to: mussels, whelks; fine with crab"));
    }

    private String mobile() {
        int n = random.nextInt(1000);
        return switch (random.nextInt(4)) {
            case 0 -> "+44 7700 900%03d".formatted(n);
            case 1 -> "07700900%03d".formatted(n);
            case 2 -> "0044 7700 900 %03d".formatted(n);
            default -> "07700 900%03d".formatted(n);
        };
    }

    private String landline() {
        return "01632 960%03d".formatted(random.nextInt(1000));
    }

    private <T> T pick(List<T> from) {
        return from.get(random.nextInt(from.size()));
    }
}
