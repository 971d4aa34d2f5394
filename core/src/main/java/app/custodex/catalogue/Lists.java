package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.Voicemail;
import com.ibm.icu.text.Collator;
import com.ibm.icu.util.ULocale;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Lists of one kind in the order that suits it. */
public final class Lists {
    /** In which order. */
    public enum Sorting {
        /** By title, A to Z. */
        NAME,
        /** By whom they are with, whoever has most first. */
        PERSON,
        LONGEST,
        LARGEST,
        /** By where they belong: a calendar, a folder, an artist and album, a camera. */
        SHELF,
        /** Conversations by how many messages they have, the most first. */
        MESSAGES,
        /** Conversations by their last message, the newest first. */
        LAST_MESSAGE,
        /** Notes by when they were made, the newest first, and those of which nobody knows it last. */
        MADE,
        /** By the albums that they are in. */
        ALBUM,
        /** By the playlists that they are in. */
        PLAYLIST,
        /** By the conversations in which they were sent or came. */
        CONVERSATION,
        GENRE,
        /** By where they were taken; see {@link Catalogue#byPlace}. */
        PLACE;

        /** Whether things stand together by what else they are in, and not by what they are. */
        boolean gathers() {
            return this == ALBUM || this == PLAYLIST || this == CONVERSATION || this == GENRE || this == PLACE;
        }
    }

    /**
     * Things that stand together.
     *
     * @param first the row at which they begin
     * @param length of all of them together; zero where they have none
     */
    public record Section(int first, String name, int count, Duration length) {}

    /**
     * A list in order.
     *
     * @param sections in the order of their rows; empty where nothing stands together
     * @param messages that each conversation has, in the order of the rows; 0 for what is none
     */
    public record Arranged(int[] numbers, List<Section> sections, int[] messages) {}

    private record Row(
            int number,
            long at,
            String title,
            long seconds,
            long bytes,
            String shelf,
            String person,
            int messages,
            long last) {
        /** A conversation without a title is called after whom it is with. */
        String name() {
            return title.isBlank() ? person : title;
        }
    }

    private Lists() {}

    static Duration length(Thing thing) {
        return switch (thing) {
            case Call call -> call.length();
            case Voicemail voicemail -> voicemail.length();
            case MediaFile file -> file.length().orElse(Duration.ZERO);
            default -> Duration.ZERO;
        };
    }

    /** Where a thing belongs; empty when nowhere in particular. */
    static String shelf(Thing thing) {
        return switch (thing) {
            case Event event -> event.calendar();
            case Task task -> task.calendar();
            case Note note -> note.folder();
            case Bookmark bookmark -> bookmark.folder();
            case MediaFile file ->
                Stream.of("Artist", "Album", "Camera", "Author")
                        .flatMap(name -> file.fact(name).stream())
                        .collect(Collectors.joining(" · "));
            default -> "";
        };
    }

    /** @param numbers of the things that are to be in the list */
    static Arranged arrange(Connection db, int[] numbers, Sorting sorting, Locale locale) throws SQLException {
        var rows = rows(db, numbers);
        var collator = Collator.getInstance(ULocale.forLocale(locale)).freeze();
        Comparator<String> alphabet = collator::compare;
        var newest = Comparator.comparingLong(Row::at).reversed();
        return switch (sorting) {
            case NAME -> list(rows, Comparator.comparing(Row::name, alphabet).thenComparing(newest));
            case LONGEST ->
                list(rows, Comparator.comparingLong(Row::seconds).reversed().thenComparing(newest));
            case LARGEST ->
                list(rows, Comparator.comparingLong(Row::bytes).reversed().thenComparing(newest));
            case MESSAGES ->
                list(rows, Comparator.comparingInt(Row::messages).reversed().thenComparing(newest));
            case LAST_MESSAGE -> list(rows, Comparator.comparingLong(Row::last).reversed());
            case PERSON ->
                sections(
                        rows,
                        Row::person,
                        newest,
                        Comparator.comparingInt(Section::count).reversed(),
                        alphabet);
            case SHELF -> sections(rows, Row::shelf, newest, (one, other) -> 0, alphabet);
            case ALBUM, PLAYLIST, CONVERSATION, GENRE, PLACE, MADE ->
                throw new IllegalArgumentException(sorting + " is no order of what things are");
        };
    }

    /** @param notes in the order of time */
    static Arranged byMade(List<Entry> notes) {
        var newest = Comparator.<Entry, Instant>comparing(entry -> made(entry.thing())
                        .map(at -> at.instant(ZoneOffset.UTC))
                        .orElse(Instant.MIN))
                .reversed();
        var sorted = notes.reversed().stream().sorted(newest).toList();
        return new Arranged(
                sorted.stream().mapToInt(entry -> (int) entry.number()).toArray(), List.of(), new int[sorted.size()]);
    }

    private static Optional<Moment> made(Thing thing) {
        return thing instanceof Note note ? note.made() : Optional.empty();
    }

    private static Arranged list(List<Row> rows, Comparator<Row> order) {
        var sorted = rows.stream().sorted(order).toList();
        return new Arranged(
                sorted.stream().mapToInt(Row::number).toArray(),
                List.of(),
                sorted.stream().mapToInt(Row::messages).toArray());
    }

    private static Arranged sections(
            List<Row> rows,
            Function<Row, String> by,
            Comparator<Row> inside,
            Comparator<Section> first,
            Comparator<String> alphabet) {
        record Together(Section section, List<Row> rows) {}
        var order = rows.stream().collect(Collectors.groupingBy(by)).entrySet().stream()
                .map(entry -> new Together(section(entry.getKey(), entry.getValue()), entry.getValue()))
                .sorted(Comparator.comparing(Together::section, first.thenComparing(Section::name, alphabet)))
                .toList();
        var numbers = new int[rows.size()];
        var sections = new ArrayList<Section>();
        int at = 0;
        for (var together : order) {
            var section = together.section();
            sections.add(new Section(at, section.name(), section.count(), section.length()));
            for (var row : together.rows().stream().sorted(inside).toList()) {
                numbers[at++] = row.number();
            }
        }
        return new Arranged(numbers, List.copyOf(sections), new int[numbers.length]);
    }

    private static Section section(String name, List<Row> rows) {
        long seconds = rows.stream().mapToLong(Row::seconds).sum();
        return new Section(0, name, rows.size(), Duration.ofSeconds(seconds));
    }

    private static List<Row> rows(Connection db, int[] numbers) throws SQLException {
        var rows = new ArrayList<Row>(numbers.length);
        try (var query = db.prepareStatement("SELECT thing.id, thing.at, thing.title, thing.seconds, thing.bytes,"
                + " thing.shelf, coalesce(person.name, address.text, ''),"
                + " coalesce(talk.messages, 0), coalesce(talk.last, 0)"
                + " FROM json_each(?) AS wanted JOIN thing ON thing.id = wanted.value"
                + " LEFT JOIN address ON address.id = thing.who LEFT JOIN person ON person.id = address.person"
                + " LEFT JOIN (SELECT within, count(*) AS messages, max(at) AS last FROM thing WHERE within IS NOT NULL"
                + " GROUP BY within) AS talk ON talk.within = thing.id")) {
            query.setString(1, Arrays.toString(numbers));
            try (var found = query.executeQuery()) {
                while (found.next()) {
                    rows.add(new Row(
                            found.getInt(1),
                            found.getLong(2),
                            text(found.getString(3)),
                            found.getLong(4),
                            found.getLong(5),
                            text(found.getString(6)),
                            text(found.getString(7)),
                            found.getInt(8),
                            found.getLong(9)));
                }
            }
        }
        return rows;
    }

    private static String text(String column) {
        return Optional.ofNullable(column).orElse("");
    }
}
