package app.custodex.practice.content;

import app.custodex.practice.content.Person.Post;
import app.custodex.practice.content.Person.Reach;
import app.custodex.practice.island.Islander;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;

/**
 * Who stands in the address book of an islander: the other islanders, and invented people beside them. Telephone numbers come only from ranges kept for fiction: Ofcom, "Telephone numbers
 * for use in TV and radio drama programmes" (07700 900000–900999, 01632 960000–960999); North America 555-0100 to
 * 555-0199. Mail and web addresses lie under the domains of RFC 2606 §3.
 */
public final class People {
    private static final long NOW = Instant.parse("2026-01-18T20:00:00Z").toEpochMilli();

    private static final List<String> GIVEN = List.of(
            "Frøya",
            "Joar",
            "Hedda",
            "Marit",
            "Iver",
            "Nanna",
            "Solvår",
            "Einar",
            "Tuva",
            "Birk",
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
            "Disa",
            "Pål",
            "Oona",
            "Colm",
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
            new String[] {"ليلى", "البحري", "Layla", "Albahri"},
            new String[] {"波瑠", "磯谷", "はる", "いそがい"},
            new String[] {"미르", "한바다", "Mir", "Hanbada"},
            new String[] {"Злата", "Береговая", "Zlata", "Beregovaya"},
            new String[] {"Μαρίνα", "Πελάγου", "Marina", "Pelagou"},
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

    private static final Set<String> ISLANDERS =
            Arrays.stream(Islander.values()).map(Islander::number).collect(Collectors.toUnmodifiableSet());

    private static final Map<Islander, String> NOTES = Map.of(
            Islander.HALVARD, "Voicemail of 3 November kept.\nDo not delete.",
            Islander.MAREN, "Choir tour: 11 people, two cars, one accordion 🪗",
            Islander.IVO, "Has the small boat; wants 4,200 for it",
            Islander.EILIF, "Rings at force nine 🌊",
            Islander.NOOR, "شكراً جزيلاً 🌊 bread on Fridays");

    private final Islander owner;
    private final Random random;

    /** @param owner whose address book it is */
    public People(long seed, Islander owner) {
        this.owner = owner;
        random = new Random(seed * 7919 + owner.ordinal());
    }

    /** The islanders come first, one of them three times; then come others. */
    public List<Person> take(int count) throws IOException {
        var people = new ArrayList<Person>(count);
        for (var islander : Islander.values()) {
            if (islander != owner && people.size() < count) {
                people.add(known(islander, people.size()));
            }
        }
        if (people.size() + 2 < count) {
            people.add(again("Sunniva (school)", "phone", "work", Islander.SUNNIVA.number()));
            people.add(again("sunniva", "mail", "home", Islander.SUNNIVA.mail()));
        }
        while (people.size() < count) {
            people.add(other(people.size()));
        }
        return people;
    }

    private Person known(Islander islander, int i) throws IOException {
        var base = other(i);
        var reach = new ArrayList<Reach>();
        reach.add(new Reach("phone", "mobile", written(islander.number())));
        if (random.nextInt(3) > 0) {
            reach.add(new Reach("mail", "home", islander.mail()));
        }
        if (random.nextInt(3) == 0) {
            reach.add(new Reach("chat", "Kitewire", islander.handle()));
        }
        return new Person(
                base.uid(),
                "",
                islander.given(),
                "",
                islander.family(),
                "",
                islander.otherScript() ? islander.spokenGiven() : "",
                islander.otherScript() ? islander.spokenFamily() : "",
                islander == Islander.HALVARD ? "Grandad" : "",
                islander.work(),
                "",
                islander.title(),
                islander.birthday(),
                NOTES.getOrDefault(islander, ""),
                reach,
                base.posts(),
                List.of(CIRCLES.get(i % CIRCLES.size())),
                Photographer.portrait(100 + islander.ordinal()),
                base.changedMillis());
    }

    /** Somebody who was entered once more, in a hurry. */
    private Person again(String name, String way, String label, String value) {
        return new Person(
                new UUID(random.nextLong(), random.nextLong()).toString(),
                "",
                name,
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                "",
                List.of(new Reach(way, label, value)),
                List.of(),
                List.of(),
                new byte[0],
                NOW - random.nextInt(900) * 86_400_000L);
    }

    /** A number as somebody writes it: with the country or without, together or apart. */
    private String written(String e164) {
        var national = "0" + e164.substring(3);
        return switch (random.nextInt(4)) {
            case 0 -> e164;
            case 1 -> national;
            case 2 -> "00" + e164.substring(1, 3) + " " + e164.substring(3, 7) + " " + e164.substring(7);
            default -> national.substring(0, 5) + " " + national.substring(5);
        };
    }

    private Person other(int i) throws IOException {
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
                i >= 400 ? family + " " + i : family,
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
        int drawn = random.nextInt(1000);
        // An islander's number is theirs alone.
        int n = ISLANDERS.contains("+447700900%03d".formatted(drawn)) ? drawn ^ 1 : drawn;
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
