package app.custodex.practice.island;

import app.custodex.practice.island.Scripts.Line;
import app.custodex.practice.island.Scripts.Piece;
import app.custodex.practice.island.Scripts.Scene;
import app.custodex.practice.island.Talk.Member;
import app.custodex.practice.island.Talk.Said;
import app.custodex.practice.island.Talk.Sign;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.regex.Pattern;

/**
 * Writes the conversations of one islander. What is said in a conversation on a day depends on the seed, the conversation and the day
 * alone, so that it stands on the phones of all who are in it.
 */
final class Conversations {
    private static final Pattern SLOT = Pattern.compile("\\{(\\w+)}");
    private static final Map<String, List<String>> WORDS = Map.of(
            "food", List.of("fish", "kelp", "barley", "pie", "rhubarb", "mussels", "rye bread", "lentils"),
            "place",
                    List.of(
                            "Nordvoe",
                            "Easter Geo",
                            "the seal rocks",
                            "Upper Slip",
                            "the school hill",
                            "the lighthouse"),
            "boat", List.of("the small boat", "the Gannet", "the Kettle", "the Dulse"),
            "tune", List.of("The gannet", "Slow tide", "Kettle song", "Lamp stair", "Channel six"),
            "thing", List.of("ladder", "blue bucket", "headlamp", "accordion strap", "creel hook", "big umbrella"),
            "bird", List.of("gannet", "fulmar", "petrel", "puffin"),
            "clock", List.of("four", "half past five", "six", "ten past six", "noon"));
    /** When people write who have no reason to write at another time; hours stand there as often as they are used. */
    private static final int[] HOURS = {
        7, 8, 8, 9, 9, 10, 11, 12, 12, 13, 14, 15, 16, 16, 17, 17, 18, 18, 19, 19, 20, 20, 21, 22
    };

    private final long seed;
    private final Islander owner;
    private final double scale;
    private final List<Room> rooms = new ArrayList<>();

    /**
     * Where something is said.
     *
     * @param key the same on all phones
     * @param members the owner too
     * @param perDay how many pieces a day, about
     */
    private record Room(String key, Optional<Group> group, List<Group.Member> members, double perDay) {
        List<Islander> there(LocalDateTime at) {
            return members.stream()
                    .filter(member -> member.at(at))
                    .map(Group.Member::who)
                    .filter(who -> who.reachable(at))
                    .toList();
        }

        /** Groups go by multimedia messages. */
        String service() {
            if (group.isPresent()) {
                return "MMS";
            }
            return "SMS";
        }

        boolean circle(String tag) {
            return group.map(g -> g.circle().name().equalsIgnoreCase(tag))
                    .orElseGet(() -> members
                            .getFirst()
                            .who()
                            .sharedWith(members.getLast().who())
                            .stream()
                            .anyMatch(circle -> circle.name().equalsIgnoreCase(tag)));
        }
    }

    /** Something that was said, before it is known what of it stands on the phone. */
    private record Raw(
            int room,
            Optional<Islander> by,
            LocalDateTime at,
            String text,
            Line line,
            Optional<Raw> answers,
            List<Sign> signs,
            long seed) {}

    /** @param scale how much is said, in relation to the ordinary */
    Conversations(long seed, Islander owner, double scale) {
        this.seed = seed;
        this.owner = owner;
        this.scale = scale;
        for (var group : Group.values()) {
            if (group.members().stream().anyMatch(member -> member.who() == owner)) {
                rooms.add(new Room(group.title(), Optional.of(group), group.members(), 0.12));
            }
        }
        for (var other : Islander.values()) {
            if (other != owner) {
                rooms.add(pair(other));
            }
        }
    }

    private Room pair(Islander other) {
        var first = owner.ordinal() < other.ordinal() ? owner : other;
        var second = first == owner ? other : owner;
        int shared = first.sharedWith(second).size();
        return new Room(
                first.latin() + " and " + second.latin(),
                Optional.empty(),
                List.of(
                        new Group.Member(first, Life.BEGIN, Optional.empty()),
                        new Group.Member(second, Life.BEGIN, Optional.empty())),
                shared == 0 ? 0.02 : 0.05 * shared);
    }

    /** What stands on the phone, and what its owner erased before. */
    record Written(List<Talk> talks, List<Said> said, List<Said> erased) {}

    /** @param until what was said afterwards is not known yet */
    Written until(LocalDateTime until) {
        var raw = new ArrayList<Raw>();
        for (int room = 0; room < rooms.size(); room++) {
            for (var day = Life.BEGIN; !day.isAfter(until.toLocalDate()); day = day.plusDays(1)) {
                smallTalk(room, day, raw);
            }
        }
        Scripts.STORIES.forEach(scene -> story(scene, raw));
        raw.removeIf(line -> line.at().isAfter(until)
                || rooms.get(line.room()).members().stream()
                        .noneMatch(member -> member.who() == owner && member.at(line.at())));
        raw.sort(Comparator.comparing(Raw::at));
        var kept = new ArrayList<Raw>();
        var erased = new ArrayList<Raw>();
        for (var line : raw) {
            var random = new SplittableRandom(line.seed() ^ owner.ordinal());
            boolean gone = random.nextInt(70) == 0
                    && line.at().plusDays(1 + random.nextInt(200)).isBefore(until)
                    && line.line().minutes() == 0;
            (gone ? erased : kept).add(line);
        }
        return new Written(talks(), said(kept), said(erased));
    }

    private List<Talk> talks() {
        var talks = new ArrayList<Talk>();
        for (var room : rooms) {
            talks.add(new Talk(
                    room.group().map(Group::title).orElse(""),
                    room.group().isPresent(),
                    room.members().stream()
                            .filter(member -> member.who() != owner)
                            .map(member -> new Member(
                                    member.who().number(),
                                    "",
                                    member.joined().atTime(8, 0),
                                    member.left().map(LocalDate::atStartOfDay)))
                            .toList(),
                    room.service()));
        }
        return talks;
    }

    private List<Said> said(List<Raw> lines) {
        var places = new IdentityHashMap<Raw, Integer>();
        for (int i = 0; i < lines.size(); i++) {
            places.put(lines.get(i), i);
        }
        return lines.stream()
                .map(raw -> new Said(
                        raw.room(),
                        address(raw.by()),
                        raw.at(),
                        raw.line().removed() ? "" : raw.text(),
                        raw.answers().flatMap(to -> Optional.ofNullable(places.get(to))),
                        Scripts.clip(raw.line(), raw.seed()),
                        raw.line().former(),
                        raw.line().removed(),
                        raw.signs()))
                .toList();
    }

    private String address(Optional<Islander> by) {
        return by.filter(who -> who != owner).map(Islander::number).orElse("");
    }

    private static SplittableRandom random(long seed, Object... parts) {
        return new SplittableRandom(seed * 1_000_003 + Objects.hash(parts));
    }

    private void smallTalk(int room, LocalDate day, List<Raw> raw) {
        var where = rooms.get(room);
        var random = random(seed, where.key(), day.toEpochDay());
        boolean storm = Weather.storm(seed, day);
        double mean = where.perDay() * scale * (storm ? 2.5 : 1);
        int count = (int) mean + (random.nextDouble() < mean % 1 ? 1 : 0);
        for (int i = 0; i < count; i++) {
            var fitting = fitting(where, day, storm);
            var piece = fitting.get(random.nextInt(fitting.size()));
            var at = day.atTime(clock(piece, random));
            var there = new ArrayList<>(where.there(at));
            var named = there.stream()
                    .filter(who -> piece.tags().contains(who.latin()))
                    .findFirst();
            if (there.size() > 1 && (named.isPresent() || piece.tags().stream().noneMatch(Conversations::isName))) {
                var first = named.orElseGet(() -> there.get(random.nextInt(there.size())));
                there.remove(first);
                there.add(0, first);
                say(room, piece, at, there, random, raw);
            }
        }
    }

    private static boolean isName(String tag) {
        return Character.isUpperCase(tag.charAt(0));
    }

    /** What could be said on a day; what is said of a season, a circle or a storm stands in it more than once. */
    private static List<Piece> fitting(Room room, LocalDate day, boolean storm) {
        var fitting = new ArrayList<Piece>();
        for (var piece : Scripts.SMALL_TALK) {
            int weight = 1;
            for (var tag : piece.tags()) {
                weight *= switch (tag) {
                    case "winter", "spring", "summer", "autumn" -> tag.equals(Weather.season(day)) ? 2 : 0;
                    case "storm" -> storm ? 12 : 0;
                    case "any", "dawn", "noon", "late" -> 1;
                    default -> isName(tag) ? 1 : room.circle(tag) ? 4 : 0;
                };
            }
            for (int i = 0; i < weight; i++) {
                fitting.add(piece);
            }
        }
        return fitting;
    }

    private static LocalTime clock(Piece piece, SplittableRandom random) {
        int minute = random.nextInt(60);
        int hour = piece.tags().contains("dawn")
                ? 5 + random.nextInt(3)
                : piece.tags().contains("noon")
                        ? 11 + random.nextInt(3)
                        : piece.tags().contains("late") ? 20 + random.nextInt(4) : HOURS[random.nextInt(HOURS.length)];
        return LocalTime.of(hour, minute, random.nextInt(60));
    }

    /** @param there who can speak, whoever speaks first in front */
    private void say(
            int room, Piece piece, LocalDateTime from, List<Islander> there, SplittableRandom random, List<Raw> raw) {
        var slots = new HashMap<String, String>();
        var said = new ArrayList<Raw>();
        var at = from;
        for (var line : piece.lines()) {
            var by = there.get((line.who().charAt(0) - 'A') % there.size());
            var text = SLOT.matcher(line.text())
                    .replaceAll(slot -> slots.computeIfAbsent(slot.group(1), s -> word(s, random)));
            add(
                    room,
                    by,
                    at,
                    text.replaceFirst("^\\p{Ll}", text.substring(0, 1).toUpperCase(Locale.ROOT)),
                    line,
                    there,
                    said,
                    random);
            at = at.plusSeconds(20 + random.nextInt(random.nextInt(5) == 0 ? 2_400 : 240));
        }
        raw.addAll(said);
    }

    private void add(
            int room,
            Islander by,
            LocalDateTime at,
            String text,
            Line line,
            List<Islander> there,
            List<Raw> said,
            SplittableRandom random) {
        var signs = new ArrayList<Sign>();
        for (var sign : line.signs()) {
            var others = there.stream().filter(who -> who != by).toList();
            signs.add(new Sign(address(Optional.of(others.get(random.nextInt(others.size())))), sign));
        }
        said.add(new Raw(
                room, Optional.of(by), at, text, line, line.replyTo().map(said::get), signs, random.nextLong()));
    }

    private static String word(String slot, SplittableRandom random) {
        return switch (slot) {
            case "n" -> Integer.toString(3 + random.nextInt(19));
            case "weekday" ->
                java.time.DayOfWeek.of(1 + random.nextInt(7)).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
            default -> {
                var words = WORDS.getOrDefault(slot, List.of(slot));
                yield words.get(random.nextInt(words.size()));
            }
        };
    }

    private void story(Scene scene, List<Raw> raw) {
        for (int room = 0; room < rooms.size(); room++) {
            var where = rooms.get(room);
            if (where.key().equals(scene.where()) || where.key().equals(turned(scene.where()))) {
                var random = random(seed, scene.where(), scene.from());
                var there = where.there(scene.from());
                var said = new ArrayList<Raw>();
                var at = scene.from().plusSeconds(random.nextInt(60));
                for (var line : scene.lines()) {
                    at = at.plusMinutes(line.minutes());
                    add(room, Islander.called(line.who()), at, line.text(), line, there, said, random);
                }
                raw.addAll(said);
            }
        }
    }

    /** "B and A" for "A and B". */
    private static String turned(String where) {
        var names = where.split(" and ", 2);
        return names.length < 2 ? where : names[1] + " and " + names[0];
    }
}
