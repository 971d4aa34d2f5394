package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Filter;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhoneIdentity;
import app.custodex.model.Alarm;
import app.custodex.model.Album;
import app.custodex.model.App;
import app.custodex.model.Attachment;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Playlist;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyReaders;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is read of the practice phones, against plain SQL on their own stores and against what was written into them. */
class EveryKindTest {
    @TempDir
    Path folder;

    private static PhoneIdentity phone(Family family) {
        return new PhoneIdentity("id", "n", family, "m", "s", "i", "sys", "GB", ZoneId.of("Etc/GMT-1"), 1, 1);
    }

    private Catalogue catalogued(Path files, Family family) throws IOException {
        return catalogued(files, family, Optional.empty());
    }

    private Catalogue catalogued(Path files, Family family, Optional<Passphrase> burrowKey) throws IOException {
        try (var place = PrivatePlace.open(folder.resolve("reading"));
                var phone = new PhoneFiles(new TreeFiles(files, family), phone(family), place)) {
            var draft = CatalogueDraft.inMemory(Optional.empty());
            draft.build(
                    CatalogueHead.of("id", 1, "GB"),
                    phone,
                    FamilyReaders.of(family, burrowKey),
                    n -> {},
                    new CancelToken());
            return draft.handOver();
        }
    }

    private static <T extends Thing> List<T> all(Catalogue catalogue, ThingKind kind, Class<T> type)
            throws IOException {
        var all = new ArrayList<T>();
        catalogue.forEach(
                catalogue.find(Filter.EVERYTHING.of(kind), Order.OLDEST_FIRST),
                entry -> all.add(type.cast(entry.thing())));
        return all;
    }

    /** The database with its log, opened as any program would; the log is folded into a copy. */
    private List<List<String>> sql(Path store, String query) throws IOException, SQLException {
        var copy = Files.createTempDirectory(folder, "sql").resolve("copy.db");
        Files.copy(store, copy);
        var log = store.resolveSibling(store.getFileName() + "-wal");
        if (Files.exists(log)) {
            Files.copy(log, copy.resolveSibling("copy.db-wal"));
        }
        var rows = new ArrayList<List<String>>();
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + copy);
                var sql = db.createStatement();
                var answer = sql.executeQuery(query)) {
            while (answer.next()) {
                var row = new ArrayList<String>();
                for (int i = 1; i <= answer.getMetaData().getColumnCount(); i++) {
                    row.add(String.valueOf(answer.getString(i)));
                }
                rows.add(row);
            }
        }
        return rows;
    }

    /** Every message is the row that SQL gives, in the order of time. */
    private static List<Message> assertMessages(
            Catalogue catalogue, List<List<String>> rows, Function<Message, List<String>> asRow) throws IOException {
        assertEquals(List.of(), catalogue.problems());
        var messages = all(catalogue, ThingKind.MESSAGE, Message.class);
        assertEquals(rows.size(), messages.size());
        for (int i = 0; i < rows.size(); i++) {
            assertEquals(rows.get(i), asRow.apply(messages.get(i)));
        }
        return messages;
    }

    private static final Instant OSTREL = Instant.parse("2000-01-01T00:00:00Z");

    private static String micros(Message message) {
        var at = message.moment().orElseThrow().instant(ZoneId.of("UTC"));
        return Long.toString(Duration.between(OSTREL, at).toNanos() / 1_000);
    }

    @ParameterizedTest
    @CsvSource({"1,ELEVEN", "2,ELEVEN", "3,NINE", "4,NINE", "5,ELEVEN", "6,NINE"})
    void messagesAndCallsOfAnOstrelAreThoseInItsStores(long seed, OstrelStore.System system) throws Exception {
        Phones.ostrel(folder, seed, 30, system);
        boolean newer = system == OstrelStore.System.ELEVEN;
        var store = folder.resolve("store/messages/messages.db");
        var rows = sql(
                store,
                newer
                        ? "SELECT m.id, m.chat, coalesce(h.address, ''), m.at, coalesce(m.text, ''), m.handle IS NULL,"
                                + " (SELECT count(*) FROM attachment a WHERE a.message = m.id),"
                                + " (SELECT count(*) FROM reaction r WHERE r.message = m.id), m.removed,"
                                + " coalesce((SELECT o.id FROM message o WHERE o.guid = m.reply_to), '')"
                                + " FROM message m LEFT JOIN handle h ON h.id = m.handle ORDER BY m.at, m.id"
                        : "SELECT m.id, m.chat, coalesce(m.address, ''), m.at, coalesce(m.text, ''), m.sent,"
                                + " (SELECT count(*) FROM attachment a WHERE a.message = m.id), 0, 0, ''"
                                + " FROM message m ORDER BY m.at, m.id");
        try (var catalogue = catalogued(folder, Family.OSTREL)) {
            assertEquals(List.of(), catalogue.problems());
            var messages = assertMessages(
                    catalogue,
                    rows,
                    message -> List.of(
                            message.id().key(),
                            message.conversation().key().replace("chat-", ""),
                            message.sender().map(party -> party.address()).orElse(""),
                            micros(message),
                            message.text(),
                            message.sent() ? "1" : "0",
                            Integer.toString(message.attachments().size()),
                            Integer.toString(message.reactions().size()),
                            message.deleted() ? "1" : "0",
                            message.replyTo().map(ThingId::key).orElse("")));
            var missing = messages.stream()
                    .flatMap(message -> message.attachments().stream())
                    .filter(attachment -> !attachment.there())
                    .count();
            assertTrue(missing > 0, "some files were deleted on the phone");
            assertEquals(
                    sql(folder.resolve("store/calls/calls.db"), "SELECT count(*), sum(seconds) FROM call"),
                    List.of(List.of(
                            Integer.toString(
                                    all(catalogue, ThingKind.CALL, Call.class).size()),
                            Long.toString(all(catalogue, ThingKind.CALL, Call.class).stream()
                                    .mapToLong(call -> call.length().toSeconds())
                                    .sum()))));
            assertEquals(
                    sql(store, "SELECT count(*) FROM chat"),
                    List.of(List.of(Integer.toString(all(catalogue, ThingKind.CONVERSATION, Conversation.class)
                            .size()))));
        }
    }

    @ParameterizedTest
    @CsvSource({"1,NINE", "2,NINE", "3,EIGHT", "4,EIGHT", "5,NINE", "6,EIGHT"})
    void messagesAndCallsOfAPellowAreThoseInItsStore(long seed, PellowStore.Base base) throws Exception {
        Phones.pellow(folder, seed, 30, base);
        boolean newer = base == PellowStore.Base.NINE;
        var store = folder.resolve("Shared/Talk/talk.db");
        var rows = sql(
                store,
                "SELECT id, thread, coalesce(number, ''), time, coalesce(body, ''), outgoing, "
                        + (newer ? "coalesce(state, ''), coalesce(reply_to, '')" : "'', ''")
                        + " FROM message ORDER BY time, id");
        try (var catalogue = catalogued(folder, Family.PELLOW)) {
            assertEquals(List.of(), catalogue.problems());
            var messages = assertMessages(
                    catalogue,
                    rows,
                    message -> List.of(
                            message.id().key(),
                            message.conversation().key().replace("thread-", ""),
                            message.sender().map(party -> party.address()).orElse(""),
                            Long.toString(message.moment()
                                    .orElseThrow()
                                    .instant(ZoneId.of("UTC"))
                                    .toEpochMilli()),
                            message.text(),
                            message.sent() ? "1" : "0",
                            message.state() == Message.State.UNKNOWN
                                    ? ""
                                    : message.state().name().toLowerCase(Locale.ROOT),
                            message.replyTo().map(ThingId::key).orElse("")));
            var calls = all(catalogue, ThingKind.CALL, Call.class);
            assertEquals(
                    sql(
                            store,
                            newer
                                    ? "SELECT sum(outgoing), sum(NOT outgoing AND answered), sum(rejected), count(*),"
                                            + " sum(video) FROM call"
                                    : "SELECT sum(outgoing), sum(NOT outgoing AND duration > 0), 0, count(*), 0 FROM call"),
                    List.of(List.of(
                            count(calls, Call.Outcome.MADE),
                            count(calls, Call.Outcome.TAKEN),
                            count(calls, Call.Outcome.DECLINED),
                            Integer.toString(calls.size()),
                            Long.toString(calls.stream()
                                    .filter(call -> call.medium() == Call.Medium.VIDEO)
                                    .count()))));
        }
    }

    private static String count(List<Call> calls, Call.Outcome outcome) {
        return Long.toString(
                calls.stream().filter(call -> call.outcome() == outcome).count());
    }

    /** The same life was written into both; each keeps it in its own way. */
    @Test
    void bothFamiliesTellTheSameEventsNotesAndBookmarks() throws Exception {
        Phones.ostrel(folder.resolve("ostrel"), 1, 30, OstrelStore.System.ELEVEN);
        Phones.pellow(folder.resolve("pellow"), 1, 30, PellowStore.Base.NINE);
        try (var ostrel = catalogued(folder.resolve("ostrel"), Family.OSTREL);
                var pellow = catalogued(folder.resolve("pellow"), Family.PELLOW)) {
            for (var catalogue : List.of(ostrel, pellow)) {
                var practice = all(catalogue, ThingKind.EVENT, Event.class).stream()
                        .filter(event -> event.title().equals("Choir practice"))
                        .findFirst()
                        .orElseThrow();
                assertEquals("Choir", practice.calendar());
                assertTrue(practice.rule().contains("FREQ=WEEKLY"), practice.rule());
                assertEquals(2, practice.except().size());
                // Half past seven by the clock before and after it changed (CET, from memory: 26 October 2025).
                assertEquals(
                        List.of(Instant.parse("2025-11-18T18:30:00Z"), Instant.parse("2025-12-30T18:30:00Z")),
                        practice.except().stream()
                                .map(moment -> moment.instant(ZoneId.of("UTC")))
                                .toList());
                assertEquals(
                        Instant.parse("2025-09-02T17:30:00Z"),
                        practice.moment().orElseThrow().instant(ZoneId.of("UTC")));
                assertEquals(
                        Duration.ofHours(2),
                        Duration.between(
                                practice.moment().orElseThrow().instant(ZoneId.of("UTC")),
                                practice.ends().orElseThrow().instant(ZoneId.of("UTC"))));
                assertEquals(List.of(Duration.ofHours(1)), practice.alarms());
                assertEquals(3, practice.people().size());
                assertTrue(all(catalogue, ThingKind.EVENT, Event.class).stream()
                        .anyMatch(event ->
                                event.moment().equals(Optional.of(new Moment.Day(LocalDate.of(2025, 11, 14))))));

                var notes = all(catalogue, ThingKind.NOTE, Note.class);
                assertEquals(
                        List.of("Choir", "Choir", "Boat", "", "Boat"),
                        notes.stream().map(Note::folder).toList());
                var leak = notes.getLast();
                assertTrue(leak.text().startsWith("Two planks up"), leak.text());
                assertTrue(leak.attachments().getFirst().there());
                // A Pellow keeps notes as files, which only tell when they were changed.
                assertEquals(
                        catalogue == ostrel ? Optional.of(LocalDate.of(2025, 11, 15)) : Optional.empty(),
                        leak.made().map(at -> at.day(ZoneId.of("Europe/Oslo"))));

                var marks = all(catalogue, ThingKind.BOOKMARK, Bookmark.class);
                assertEquals(
                        List.of("Sea", "Sea", "Sea/Ferry", ""),
                        marks.stream().map(Bookmark::folder).toList());
                assertEquals(
                        "https://example.net/ferry?from=nordvoe", marks.get(2).address());
                assertTrue(marks.get(3).later());
                assertFalse(all(catalogue, ThingKind.VOICEMAIL, Thing.class).isEmpty());
                assertMedia(catalogue);
            }
            var conversations = ostrel.sentIn();
            var sent = new ArrayList<MediaFile>();
            var pictures = new ArrayList<MediaFile>();
            for (var picture : all(ostrel, ThingKind.PICTURE, MediaFile.class)) {
                boolean inMessages = picture.id().item().startsWith("store/messages/");
                (inMessages ? sent : pictures).add(picture);
            }
            assertTrue(sent.size() > 100, sent.size() + " pictures in conversations");
            assertTrue(sent.stream()
                    .noneMatch(picture -> conversations.of(picture.id().item()).isEmpty()));
            assertEquals(
                    sql(folder.resolve("ostrel/store/roll/roll.db"), "SELECT count(*) FROM picture"),
                    List.of(List.of(Integer.toString(pictures.size()))));
            assertTrue(pictures.stream().filter(p -> p.place().isPresent()).count() > 40);
            // Those that were drawn say in which zone they were taken (Exif 2.31, OffsetTimeOriginal).
            assertTrue(pictures.stream()
                    .filter(p -> p.id().item().endsWith(".jpg"))
                    .allMatch(p -> p.moment().orElseThrow() instanceof Moment.At(var at, var zone)
                            && zone.isPresent()
                            && at.isBefore(Instant.parse("2026-01-19T00:00:00Z"))));
        }
    }

    /** What stands beside the files of pictures, sound and apps. */
    private static void assertMedia(Catalogue catalogue) throws IOException {
        var albums = all(catalogue, ThingKind.ALBUM, Album.class);
        for (var use : Album.Use.values()) {
            var of = albums.stream().filter(album -> album.use() == use).toList();
            assertFalse(of.isEmpty(), use.name());
            assertTrue(of.stream().flatMap(album -> album.pictures().stream()).allMatch(Attachment::there), use.name());
        }
        var storm = albums.stream().filter(a -> a.title().equals("Storm night")).findFirst();
        assertEquals(6, storm.orElseThrow().pictures().size());
        var cloud = all(catalogue, ThingKind.TRACK, MediaFile.class).stream()
                .filter(track -> track.bytes() == 0)
                .map(MediaFile::title)
                .sorted()
                .toList();
        assertEquals(List.of("Eleven slates", "Third step"), cloud);
        assertEquals(1, all(catalogue, ThingKind.PLAYLIST, Playlist.class).size());
        assertEquals(1, all(catalogue, ThingKind.PODCAST, MediaFile.class).size());
        assertEquals(1, all(catalogue, ThingKind.FILM, MediaFile.class).size());
        assertEquals(1, all(catalogue, ThingKind.RINGTONE, MediaFile.class).size());
        var first = all(catalogue, ThingKind.ALARM, Alarm.class).stream()
                .filter(alarm -> alarm.title().equals("First ferry"))
                .findFirst()
                .orElseThrow();
        assertEquals(LocalTime.of(5, 10), first.time());
        assertEquals(5, first.days().size());
        assertTrue(first.active());
        var apps = all(catalogue, ThingKind.APP, App.class);
        assertEquals(6, apps.size());
        for (var app : apps) {
            assertEquals(
                    switch (app.identifier()) {
                        case "org.example.tides" -> App.Data.NONE;
                        case "app.kitewire", "app.burrow" -> App.Data.NOT_HERE; // nothing was written yet
                        default -> App.Data.HERE;
                    },
                    app.data(),
                    app.identifier());
        }
    }

    @Test
    void aChatAppsCopyIsReadWithItsRepliesEditsAndMissingMedia() throws Exception {
        for (var family : List.of(Family.OSTREL, Family.PELLOW)) {
            var root = folder.resolve(family.code());
            var copies = root.resolve(Layout.chatCopies(family, Kind.KITEWIRE).text());
            ChatCopies.write(Kind.KITEWIRE, copies, ChatCopies.newKey(), "Fenna Rook");
            try (var catalogue = catalogued(root, family)) {
                assertEquals(
                        sql(copies.resolve("kitewire.db"), "SELECT count(*) FROM message"),
                        List.of(List.of(String.valueOf(catalogue.counts().get(ThingKind.MESSAGE)))));
                assertChat(catalogue, "Kitewire");
            }
        }
    }

    @Test
    void whatIsSealedWithTheCustomersKeyIsReadWithItAlone() throws Exception {
        for (var family : List.of(Family.OSTREL, Family.PELLOW)) {
            var root = folder.resolve(family.code());
            var copies = root.resolve(Layout.chatCopies(family, Kind.BURROW).text());
            var key = ChatCopies.newKey();
            ChatCopies.write(Kind.BURROW, copies, key, "Fenna Rook");
            try (var closed = catalogued(root, family)) {
                assertFalse(closed.counts().containsKey(ThingKind.MESSAGE));
                assertTrue(closed.problems().getFirst().what().contains("a key that only the customer has"));
            }
            var given = new Passphrase(key.split(" ", 2)[0].toCharArray());
            try (var opened = catalogued(root, family, Optional.of(given))) {
                assertChat(opened, "Burrow");
                assertEquals(
                        "Skerrow choir",
                        all(opened, ThingKind.CONVERSATION, Conversation.class)
                                .getFirst()
                                .name());
            }
            var other = new Passphrase(ChatCopies.newKey().split(" ", 2)[0].toCharArray());
            try (var refused = catalogued(root, family, Optional.of(other))) {
                assertTrue(refused.problems().getFirst().what().contains("does not open"));
            }
            var file = copies.resolve("copy.jsonl.age");
            var bytes = Files.readAllBytes(file);
            Files.write(file, Arrays.copyOf(bytes, bytes.length - 30));
            try (var cut = catalogued(root, family, Optional.of(given))) {
                assertTrue(cut.problems().getFirst().what().contains("breaks off or is damaged"));
            }
        }
    }

    private static void assertChat(Catalogue catalogue, String app) throws IOException {
        assertEquals(List.of(), catalogue.problems());
        var messages = all(catalogue, ThingKind.MESSAGE, Message.class);
        assertTrue(messages.stream().allMatch(message -> message.account().equals(app)));
        var last = messages.getLast();
        assertTrue(last.sent() && last.edited().isPresent(), "it is the owner's own, and was changed");
        assertEquals("Sold. Bring a bucket", last.text());
        assertTrue(messages.get(1).deleted());
        assertEquals("2", messages.get(2).replyTo().orElseThrow().key());
        assertEquals("👍", messages.get(2).reactions().getFirst().sign());
        assertTrue(messages.get(3).attachments().getFirst().there());
        assertFalse(messages.getFirst().attachments().getFirst().there(), "thrown away by the app");
        assertEquals("0000.webp", messages.getFirst().attachments().getFirst().name());
        var call = all(catalogue, ThingKind.CALL, Call.class).getFirst();
        assertEquals(Call.Outcome.TAKEN, call.outcome());
        assertEquals(Duration.ofSeconds(312), call.length());
        assertEquals("Jorun Tasch", call.people().getFirst().name());
    }

    @Test
    void onePersonIsFoundByEveryWayOfWritingANumber() throws Exception {
        Phones.ostrel(folder, 1, 30, OstrelStore.System.ELEVEN);
        try (var catalogue = catalogued(folder, Family.OSTREL)) {
            var halvard = catalogue.people().stream()
                    .filter(person -> person.name().equals("Halvard Rook"))
                    .findFirst()
                    .orElseThrow();
            assertTrue(halvard.contact());
            var number = halvard.addresses().stream()
                    .filter(address -> address.startsWith("+44"))
                    .findFirst()
                    .orElseThrow();
            var ofHim = new Filter(
                    Set.of(ThingKind.MESSAGE, ThingKind.CALL),
                    OptionalLong.of(halvard.id()),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    false,
                    Optional.empty());
            long[] his = catalogue.find(ofHim, Order.OLDEST_FIRST);
            assertTrue(his.length > 10, his.length + " of Halvard");
            for (var written : List.of(number, number.replace("+44", "0"), "0044 " + number.substring(3))) {
                long[] found = catalogue.find(
                        written, Filter.EVERYTHING.of(ThingKind.MESSAGE, ThingKind.CALL), Order.OLDEST_FIRST);
                assertTrue(found.length >= his.length, written + ": " + found.length);
            }
        }
    }

    @Test
    void aStoreThatIsNoStoreIsToldAndTheOthersAreRead() throws Exception {
        Phones.ostrel(folder, 1, 10, OstrelStore.System.ELEVEN);
        Files.writeString(folder.resolve("store/notes/notes.db"), "not a database at all");
        Files.deleteIfExists(folder.resolve("store/notes/notes.db-wal"));
        try (var catalogue = catalogued(folder, Family.OSTREL)) {
            var problems = catalogue.problems();
            assertTrue(
                    problems.stream().map(Problem::subject).anyMatch("store/notes/notes.db"::equals),
                    problems.toString());
            assertFalse(all(catalogue, ThingKind.MESSAGE, Message.class).isEmpty());
        }
    }
}
