package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.CancelToken;
import app.custodex.base.PlaceFailure;
import app.custodex.base.PrivatePlace;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Catalogue.Person;
import app.custodex.link.FileSource;
import app.custodex.model.Attachment;
import app.custodex.model.Contact;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.Samples;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CatalogueTest {
    private static final Instant NOON = Instant.parse("2026-01-10T12:00:00Z");

    @TempDir
    Path folder;

    private WrittenReader phone;

    @BeforeEach
    void phone() {
        phone = new WrittenReader(folder);
    }

    private static Party party(String number) {
        return new Party(number, number.startsWith("+") ? number : "", "");
    }

    private static Message message(String key, String chat, int minute, Optional<Party> sender, String text) {
        return Samples.message(
                new ThingId("talk", key),
                new ThingId("talk", chat),
                Moment.at(NOON.plusSeconds(60L * minute)),
                sender,
                text,
                Message.State.READ,
                text.contains("picture")
                        ? List.of(new Attachment("files/seal.jpg", "seal.jpg", "image/jpeg"))
                        : List.of());
    }

    private static Note note(String key, String title, String text) {
        return new Note(new ThingId("notes", key), "", "", title, text, Optional.of(Moment.at(NOON)), List.of());
    }

    private static Contact contact(String key, String name, String... numbers) {
        var phones = Arrays.stream(numbers)
                .map(number -> new PhoneNumber("", number, number.startsWith("+") ? number : ""))
                .toList();
        return Samples.contact(new ThingId("people", key), name, phones, List.of(), List.of());
    }

    private static List<String> keys(Catalogue catalogue, long[] numbers) throws IOException {
        var keys = new ArrayList<String>();
        catalogue.forEach(numbers, entry -> keys.add(entry.thing().id().key()));
        return keys;
    }

    private static List<String> found(Catalogue catalogue, String typed) throws IOException {
        return keys(catalogue, catalogue.find(typed, Filter.EVERYTHING, Order.OLDEST_FIRST));
    }

    private Catalogue talk() throws IOException {
        phone.write(
                "talk",
                new Conversation(new ThingId("talk", "c"), "", "SMS", "", false, List.of(party("+441632960001"))),
                new Conversation(
                        new ThingId("talk", "g"),
                        "",
                        "MMS",
                        "Choir",
                        true,
                        List.of(party("+441632960001"), party("+441632960002"))),
                message("3", "c", 30, Optional.empty(), "and this is my answer"),
                message("1", "c", 10, Optional.of(party("+441632960001")), "a picture for you"),
                message("2", "g", 20, Optional.of(party("+441632960002")), "bring the kettle"));
        phone.write("people", contact("1", "Ivo", "+441632960001"), contact("2", "Ivo Kelp", "+441632960001"));
        return phone.catalogue(Optional.empty(), 1);
    }

    @Test
    void everyThingComesBackAsItWasRead() throws IOException {
        var things = List.<Thing>of(
                new Event(
                        new ThingId("all", "event"),
                        "choir@example.org",
                        "Choir",
                        "uid",
                        "Practice",
                        "Hall",
                        "",
                        Optional.of(new Moment.At(NOON, Optional.of(ZoneId.of("CET")))),
                        Optional.of(new Moment.Floating(LocalDateTime.of(2026, 1, 10, 13, 0))),
                        "FREQ=WEEKLY",
                        List.of(new Moment.Day(LocalDate.of(2026, 1, 17)), Moment.at(NOON.plusNanos(1_000))),
                        List.of(new Moment.Day(LocalDate.of(2026, 2, 1))),
                        Optional.empty(),
                        List.of(java.time.Duration.ofMinutes(15)),
                        List.of(new Party("ivo@example.org", "", "Ivo"))),
                new Message(
                        new ThingId("all", "message"),
                        "Kitewire",
                        new ThingId("elsewhere", "c#1"),
                        Optional.empty(),
                        false,
                        Optional.of(Party.named("Ama")),
                        "\u0000 and \ud83d half a pair",
                        "",
                        Message.State.FAILED,
                        List.of(new Attachment("", "gone.jpg", "")),
                        Optional.of(new ThingId("all", "event")),
                        List.of(new Message.Reaction(Optional.empty(), "👍")),
                        Optional.of(Moment.at(NOON)),
                        true));
        phone.write("all", things.toArray(Thing[]::new));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            for (var thing : things) {
                var back = catalogue.find(thing.id()).orElseThrow().thing();
                assertEquals(
                        thing.toString().replace('\ud83d', '?'), back.toString().replace('\ud83d', '?'));
            }
        }
    }

    @Test
    void listsAreFilteredAndInOrder() throws IOException {
        try (var catalogue = talk()) {
            assertEquals(2, catalogue.counts().get(ThingKind.CONVERSATION));
            var messages = Filter.EVERYTHING.of(ThingKind.MESSAGE);
            assertEquals(List.of("1", "2", "3"), keys(catalogue, catalogue.find(messages, Order.OLDEST_FIRST)));
            assertEquals(List.of("3", "2", "1"), keys(catalogue, catalogue.find(messages, Order.NEWEST_FIRST)));
            assertEquals(List.of("1", "3"), keys(catalogue, catalogue.within(new ThingId("talk", "c"))));
            assertArrayEquals(new long[0], catalogue.within(new ThingId("talk", "nobody's")));
            var ivo = catalogue.people().stream()
                    .filter(p -> p.name().equals("Ivo"))
                    .findFirst()
                    .orElseThrow();
            var of = new Filter(
                    EnumSet.of(ThingKind.MESSAGE),
                    OptionalLong.of(ivo.id()),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    false,
                    Optional.empty());
            // What was sent to him counts as his too, as long as nobody else was there.
            assertEquals(List.of("1", "3"), keys(catalogue, catalogue.find(of, Order.OLDEST_FIRST)));
            var attached = new Filter(
                    Set.of(),
                    OptionalLong.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    Optional.empty(),
                    true,
                    Optional.empty());
            assertEquals(List.of("1"), keys(catalogue, catalogue.find(attached, Order.OLDEST_FIRST)));
            var sent = new Filter(
                    Set.of(),
                    OptionalLong.empty(),
                    Optional.empty(),
                    Optional.of(LocalDate.of(2026, 1, 10)),
                    Optional.of(LocalDate.of(2026, 1, 10)),
                    false,
                    Optional.of(true));
            assertEquals(List.of("3"), keys(catalogue, catalogue.find(sent, Order.OLDEST_FIRST)));
        }
    }

    @Test
    void twoContactsWithOneNumberAreOnePersonAndANumberWithoutAContactIsOneToo() throws IOException {
        try (var catalogue = talk()) {
            var people = catalogue.people();
            assertEquals(2, people.size(), people.toString());
            assertTrue(people.getFirst().contact());
            assertEquals("+441632960002", people.getLast().name());
            var names = catalogue.names();
            var message = catalogue.find(new ThingId("talk", "1")).orElseThrow().thing();
            assertEquals("Ivo", names.of(message.people().getFirst(), message));
        }
    }

    @Test
    void wordsPrefixesPhrasesNumbersAndAttachmentsAreFound() throws IOException {
        try (var catalogue = talk()) {
            assertEquals(List.of("2"), found(catalogue, "KETT"));
            assertEquals(List.of("2"), found(catalogue, "\"the kettle\""));
            assertEquals(List.of(), found(catalogue, "\"kettle the\""));
            assertEquals(List.of("1"), found(catalogue, "seal.jpg"));
            assertEquals(List.of("1"), found(catalogue, "picture you"));
            assertEquals(List.of(), found(catalogue, "picture kettle"));
            assertEquals(List.of(), found(catalogue, "***"));
            assertTrue(found(catalogue, "01632 960002").contains("2"));
            assertTrue(found(catalogue, "0044 1632-960 002").contains("2"));
            assertEquals(List.of(), found(catalogue, "\" AND words : *"));
        }
    }

    @Test
    void theNextLayerReadsAndWritesOnlyWhatChanged() throws IOException {
        phone.write("notes", note("1", "Rope", "doubled"), note("2", "Kettle", "black"), note("3", "Dog", "wet"));
        phone.write("talk", message("1", "c", 1, Optional.empty(), "hello"));
        phone.write("empty");
        byte[] below;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            below = draft.bytes();
        }
        assertEquals(
                List.of("empty", "notes", "talk"),
                phone.read().stream().sorted().toList());
        phone.write("notes", note("1", "Rope", "doubled"), note("2", "Kettle", "white"), note("4", "Lamp", "lit"));
        phone.write("empty", note("5", "Chart", "coast"));
        try (var catalogue = phone.catalogue(Optional.of(below), 2)) {
            assertEquals(
                    List.of("empty", "notes"), phone.read().stream().sorted().toList());
            assertEquals(4, catalogue.counts().get(ThingKind.NOTE));
            assertEquals(List.of("5"), found(catalogue, "chart"));
            assertEquals(List.of("2"), found(catalogue, "white"));
            assertEquals(List.of(), found(catalogue, "black"));
            assertEquals(List.of("2"), found(catalogue, "wh"));
            assertEquals(List.of(), found(catalogue, "bl"));
            assertEquals(List.of("2"), found(catalogue, "k"));
            assertEquals(List.of(), found(catalogue, "wet"));
            assertEquals(List.of("4"), found(catalogue, "lamp"));
            assertEquals(List.of("1"), found(catalogue, "hello"));
        }
        phone.remove("talk");
        try (var catalogue = phone.catalogue(Optional.of(below), 3)) {
            assertEquals(List.of(), found(catalogue, "hello"));
            assertTrue(catalogue.find(new ThingId("talk", "1")).isEmpty());
        }
    }

    @Test
    void peopleOfTheNextLayerAreWorkedOutAnew() throws IOException {
        phone.write("people", contact("1", "Ivo", "+441632960001"), contact("2", "Ama", "+441632960002"));
        phone.write("talk", message("1", "c", 1, Optional.of(party("+441632960001")), "hello"));
        byte[] below;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            below = draft.bytes();
        }
        phone.write("people", contact("1", "Ivo", "+441632960009"), contact("2", "Ama", "+441632960001"));
        try (var catalogue = phone.catalogue(Optional.of(below), 2)) {
            var message = catalogue.find(new ThingId("talk", "1")).orElseThrow().thing();
            assertEquals("Ama", catalogue.names().of(message.people().getFirst(), message));
            assertEquals(
                    List.of("Ivo", "Ama"),
                    catalogue.people().stream()
                            .filter(Catalogue.Person::contact)
                            .map(Catalogue.Person::name)
                            .toList());
        }
    }

    @Test
    void thingsAreReadInTheOrderOfTheirNumbersAndMissingOnesAreLeftOut() throws IOException {
        phone.write("notes", note("1", "Rope", ""), note("2", "Kettle", ""), note("3", "Dog", ""));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            assertEquals(
                    List.of(3L, 1L, 3L),
                    catalogue.read(3, 77, 1, 3).stream()
                            .map(Catalogue.Entry::number)
                            .toList());
            assertEquals(List.of(), catalogue.read());
        }
    }

    @Test
    void whatHasOneKeyTwiceStaysTwiceInTheNextLayer() throws IOException {
        phone.write("notes", note("1", "Rope", "doubled"), note("1", "Twin", "again"), note("2", "Kettle", "black"));
        byte[] below;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            below = draft.bytes();
        }
        phone.write("notes", note("1", "Rope", "doubled"), note("1", "Twin", "changed"), note("2", "Kettle", "black"));
        try (var catalogue = phone.catalogue(Optional.of(below), 2)) {
            assertEquals(3, catalogue.counts().get(ThingKind.NOTE));
            assertEquals(List.of("1"), found(catalogue, "doubled"));
            assertEquals(List.of("1"), found(catalogue, "changed"));
            assertEquals(List.of(), found(catalogue, "again"));
        }
    }

    /** "The 'integrity-check' Command" of SQLite's FTS5 Extension, as SQLite itself applies it. */
    @Test
    void theIndexOfWordsIsWholeInEachLayer() throws Exception {
        var file = folder.resolve("catalogue.db");
        for (int layer = 1; layer <= 2; layer++) {
            var notes = new ArrayList<Thing>();
            for (int i = 0; i < 2_000; i++) {
                notes.add(note(Integer.toString(i), "rope " + i, i % 3 == layer ? "doubled" : "single"));
            }
            phone.write("notes", notes.toArray(Thing[]::new));
            try (var draft = CatalogueDraft.inFile(file)) {
                phone.build(draft, new CancelToken());
            }
            try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
                    var statement = db.createStatement()) {
                statement.execute("INSERT INTO words (words) VALUES ('integrity-check')");
                var found = statement.executeQuery("SELECT count(*) FROM words WHERE words MATCH 'doubled'");
                assertEquals(layer == 1 ? 667 : 666, found.getInt(1));
            }
        }
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void anotherOnesOrATornCatalogueIsNotOpened() throws IOException {
        byte[] bytes;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            bytes = draft.bytes();
        }
        var file = folder.resolve("catalogue.db");
        Files.write(file, bytes);
        Catalogue.open(file, CatalogueHead.of("phone", 1, "GB")).orElseThrow().close();
        Catalogue.open(bytes, CatalogueHead.of("phone", 1, "GB")).orElseThrow().close();
        assertTrue(Catalogue.open(file, CatalogueHead.of("phone", 2, "GB")).isEmpty());
        assertTrue(Catalogue.open(file, CatalogueHead.of("another", 1, "GB")).isEmpty());
        assertTrue(Catalogue.open(file, new CatalogueHead(Schema.FORM - 1, "phone", 1, "GB"))
                .isEmpty());
        for (int length : new int[] {0, 10, 100, 5_000}) {
            Files.write(file, Arrays.copyOf(bytes, length));
            assertTrue(Catalogue.open(file, CatalogueHead.of("phone", 1, "GB")).isEmpty(), length + " bytes");
        }
    }

    @Test
    void whatCouldNotBeReadIsToldAndStoppingLeavesNoCatalogue() throws IOException {
        phone.write("torn", note("1", "half", "a note"));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            assertEquals(1, catalogue.problems().size());
            assertEquals(1, catalogue.counts().get(ThingKind.NOTE));
        }
        var stopped = new CancelToken();
        stopped.cancel();
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            assertThrows(CancellationException.class, () -> phone.build(draft, stopped));
        }
    }

    @Test
    void contactsThatWereReadAreNotWrittenOnceItIsStopped() throws IOException {
        phone.write("people", contact("1", "Ivo", "+441632960001"));
        var stopping = new CancelToken();
        var growth = new Growth() {
            @Override
            public void read(long things) {}

            @Override
            public void contacts(List<Contact> contacts) {
                assertEquals(1, contacts.size());
                stopping.cancel();
            }

            @Override
            public void usable(Catalogue growing) {
                throw new AssertionError("it is stopped");
            }
        };
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            assertThrows(CancellationException.class, () -> phone.build(draft, 1, List.of(phone), growth, stopping));
        }
    }

    /** Reads messages, and stops in the middle until it is let go on. */
    private static final class HeldReader implements Reader {
        private final CountDownLatch goOn = new CountDownLatch(1);

        @Override
        public String name() {
            return "held";
        }

        @Override
        public Set<ThingKind> kinds() {
            return Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE);
        }

        @Override
        public List<Store> stores(FileSource files) {
            return List.of(new Store("talk", List.of()));
        }

        @Override
        public void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
            sink.thing(
                    new Conversation(new ThingId("talk", "c"), "", "SMS", "", false, List.of(party("+441632960001"))));
            for (int i = 0; i < 600; i++) {
                if (i == 400) {
                    try {
                        goOn.await();
                    } catch (InterruptedException e) {
                        throw new IOException(e);
                    }
                }
                sink.thing(message("m" + i, "c", i, Optional.empty(), "line " + i));
            }
        }
    }

    @Test
    void aThingThatCannotBeUnderstoodIsToldAndTheOthersAreThere() throws IOException {
        var broken = mock(Note.class);
        when(broken.id()).thenReturn(new ThingId("notes", "2"));
        when(broken.kind()).thenReturn(ThingKind.NOTE);
        doThrow(new IllegalStateException("nobody expected this")).when(broken).texts(any());
        phone.write("notes", note("1", "Rope", "doubled"), broken, note("3", "Dog", "wet"));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            assertEquals(List.of("1"), found(catalogue, "rope"));
            assertEquals(List.of("3"), found(catalogue, "dog"));
            assertEquals(2, catalogue.counts().get(ThingKind.NOTE));
            var problem = catalogue.problems(reader -> true).getFirst();
            assertEquals("notes", problem.subject());
            assertTrue(problem.what().startsWith("Something in it can't be understood"), problem.what());
        }
    }

    /** Else the catalogue would say for good that a sound store can't be read. */
    @Test
    @Fault(Of.FULL_DISK)
    void aPlaceThatCannotBeWrittenEndsTheReading() throws IOException {
        var reader = mock(Reader.class);
        when(reader.name()).thenReturn("mocked");
        when(reader.kinds()).thenReturn(Set.of(ThingKind.NOTE));
        when(reader.stores(any())).thenReturn(List.of(new Store("notes", List.of())));
        var place = PrivatePlace.open(folder.resolve("gone"));
        place.close();
        var noRoom = assertThrows(PlaceFailure.class, place::folder);
        doThrow(noRoom).when(reader).read(any(), any(), any());
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            assertSame(
                    noRoom,
                    assertThrows(
                            PlaceFailure.class,
                            () -> phone.build(draft, 1, List.of(reader), n -> {}, new CancelToken())));
        }
    }

    @Test
    void veryManyContactsAreNotAllKeptInMemoryUntilTheyAreRead() throws IOException {
        var many = IntStream.range(0, 100_500)
                .mapToObj(i -> contact("" + i, "Name " + i))
                .toArray(Thing[]::new);
        phone.write("people", many);
        var told = new ArrayList<Long>();
        var growth = new Growth() {
            @Override
            public void read(long things) {
                told.add(things);
            }

            @Override
            public void contacts(List<Contact> contacts) {
                throw new AssertionError(contacts.size() + " contacts");
            }

            @Override
            public void usable(Catalogue growing) {
                told.add(-1L);
            }
        };
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            phone.build(draft, 1, List.of(phone), growth, new CancelToken());
            try (var catalogue = draft.handOver()) {
                assertEquals(many.length, catalogue.counts().get(ThingKind.CONTACT));
            }
        }
        assertEquals(List.of((long) many.length, -1L), told.subList(told.size() - 2, told.size()));
        assertEquals(told.stream().filter(n -> n > 0).sorted().distinct().toList(), told.subList(0, told.size() - 1));
    }

    @Test
    void itCanBeUsedWhileItGrows() throws Exception {
        phone.write("people", contact("1", "Ivo", "+441632960001"), contact("2", "Maren", "+441632960002"));
        var held = new HeldReader();
        var growing = new CompletableFuture<Catalogue>();
        var firstOfAll = new ArrayList<Contact>();
        var growth = new Growth() {
            @Override
            public void read(long things) {}

            @Override
            public void contacts(List<Contact> contacts) {
                assertFalse(growing.isDone());
                firstOfAll.addAll(contacts);
            }

            @Override
            public void usable(Catalogue early) {
                growing.complete(early);
            }
        };
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            var building = CompletableFuture.runAsync(() -> {
                try {
                    phone.build(draft, 1, List.of(phone, held), growth, new CancelToken());
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
            var early = growing.get(20, TimeUnit.SECONDS);
            assertEquals(2, early.counts().get(ThingKind.CONTACT));
            assertEquals(
                    List.of("Ivo", "Maren"),
                    early.people().stream().map(Person::name).toList());
            var contacts = Filter.EVERYTHING.of(ThingKind.CONTACT);
            var atOnce = early.read(early.find(contacts, Order.AS_KEPT));
            assertEquals(firstOfAll, atOnce.stream().map(Entry::thing).toList());
            assertEquals(2, early.spine().undated());
            while (early.counts().getOrDefault(ThingKind.MESSAGE, 0L) == 0) {
                assertFalse(building.isDone(), "the reader holds");
                Thread.onSpinWait();
            }
            // A batch and no more is there, the conversation in front of it; it is found by words, also by short ones.
            assertEquals(1, early.find(Filter.EVERYTHING.of(ThingKind.CONVERSATION), Order.OLDEST_FIRST).length);
            long seen = early.counts().getOrDefault(ThingKind.MESSAGE, 0L);
            assertTrue(seen < 400, seen + " messages");
            while (early.find("li", Filter.EVERYTHING, Order.NEWEST_FIRST).length < seen) {
                assertFalse(building.isDone(), "words come behind what they are in");
                Thread.onSpinWait();
            }
            assertEquals(List.of("m7"), found(early, "line 7").subList(0, 1));
            held.goOn.countDown();
            building.get(20, TimeUnit.SECONDS);
            assertThrows(CancellationException.class, early::counts);
            try (var whole = draft.handOver()) {
                assertEquals(600, whole.counts().get(ThingKind.MESSAGE));
                assertEquals(600, whole.find("li", Filter.EVERYTHING, Order.OLDEST_FIRST).length);
                assertEquals(atOnce, whole.read(whole.find(contacts, Order.AS_KEPT)));
            }
        }
    }
}
