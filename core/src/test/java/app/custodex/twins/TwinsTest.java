package app.custodex.twins;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.WrittenReader;
import app.custodex.media.StreamSource;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.MediaFile;
import app.custodex.model.Samples;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.twins.OnlyHere.Verdict;
import app.custodex.twins.TwinSet.Likeness;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pictures and songs are made by ffmpeg. */
final class TwinsTest {
    @TempDir
    Path folder;

    private static PhoneNumber number(String written, String e164) {
        return new PhoneNumber("mobile", written, e164);
    }

    private static Contact contact(String key, String name, List<PhoneNumber> numbers, String... mails) {
        return Samples.contact(
                new ThingId("contacts", key),
                name,
                numbers,
                Stream.of(mails).map(mail -> new Labelled("home", mail)).toList(),
                List.of());
    }

    /** Ofcom keeps 07700 900000 to 900999 for drama; see ofcom.org.uk, "Numbers for use in drama". */
    private static final PhoneNumber IVO = number("07700 900112", "+447700900112");

    private Catalogue catalogue(WrittenReader phone) throws IOException {
        return phone.catalogue(Optional.empty(), 1);
    }

    private static List<String> titles(Catalogue catalogue, TwinSet set) throws IOException {
        return catalogue.read(set.numbers().stream().mapToLong(n -> n).toArray()).stream()
                .map(entry -> entry.thing().title())
                .toList();
    }

    private final List<Problem> problems = new CopyOnWriteArrayList<>();

    private List<TwinSet> search(Catalogue catalogue) throws IOException {
        var found = new ArrayList<TwinSet>();
        Twins.search(
                catalogue,
                item -> Files.newInputStream(folder.resolve(item)),
                item -> new StreamSource(
                        Files.size(folder.resolve(item)), () -> Files.newInputStream(folder.resolve(item))),
                new Twins.Listener() {
                    @Override
                    public void found(List<TwinSet> sets) {
                        found.addAll(sets);
                    }

                    @Override
                    public void problem(Problem problem) {
                        problems.add(problem);
                    }
                },
                new CancelToken());
        return found;
    }

    @Test
    void contactsThatShareAnAddressAreOnePersonAndNamesAloneAreNot() throws IOException {
        var phone = new WrittenReader(folder);
        var switchboard = number("020 7946 0000", "+442079460000");
        var contacts = new ArrayList<>(List.of(
                contact("1", "Ivo Kelp", List.of(IVO)),
                contact("2", "Ivo (boat)", List.of(number("+44 7700 900112", "+447700900112")), "IVO@example.org"),
                contact("3", "Ivo K.", List.of(), " ivo@example.org"),
                contact("8", "Home", List.of(number("07700 900700", "+447700900700"))),
                contact("9", "Isak", List.of(number("07700 900700", "+447700900700"))),
                contact("4", "Maren Quill", List.of()),
                contact("5", "Maren Quill", List.of()),
                contact("6", "Short code", List.of(number("112", ""))),
                contact("7", "Other code", List.of(number("112", "")))));
        for (int i = 0; i < 5; i++) {
            contacts.add(contact("s" + i, "Desk " + i, List.of(switchboard)));
        }
        phone.write("contacts", contacts.toArray(Contact[]::new));
        try (var catalogue = catalogue(phone)) {
            var sets = search(catalogue);
            assertEquals(2, sets.size(), sets.toString());
            assertEquals(
                    "the same number +447700900700; but their names have nothing in common",
                    sets.getLast().reason());
            assertEquals(List.of("Ivo Kelp", "Ivo (boat)", "Ivo K."), titles(catalogue, sets.getFirst()));
            assertEquals(
                    "the same number +447700900112; the same mail address ivo@example.org",
                    sets.getFirst().reason());
        }
    }

    private static Contact born(String key, String name, Day day, Labelled chat) {
        var plain = contact(key, name, List.of());
        return new Contact(
                plain.id(),
                "",
                "",
                plain.name(),
                List.of(),
                plain.organisation(),
                List.of(),
                List.of(),
                List.of(),
                List.of(chat),
                List.of(),
                Optional.of(day),
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                false,
                Optional.empty(),
                List.of());
    }

    @Test
    void aNameWithABirthdayIsEnoughAndAnAddressInOneServiceSaysNothingOfAnother() throws IOException {
        var june = new Day(Optional.empty(), 6, 30);
        var july = new Day(Optional.empty(), 7, 30);
        var phone = new WrittenReader(folder);
        phone.write(
                "contacts",
                born("1", "Séa Holm", june, new Labelled("Kitewire", "sea")),
                born("2", "SEA HOLM", june, new Labelled("Burrow", "sea2")),
                born("3", "Sea Holm", july, new Labelled("Burrow", "sea")),
                born("4", "Seal", july, new Labelled("Kitewire", "SEA3")),
                born("5", "Rock", june, new Labelled("Kitewire", "sea3")));
        try (var catalogue = catalogue(phone)) {
            var sets = search(catalogue);
            assertEquals(
                    List.of(
                            "the same name sea holm and birthday --06-30",
                            "the same address sea3 in Kitewire; but their names have nothing in common"),
                    sets.stream().map(TwinSet::reason).toList());
        }
    }

    private static MediaFile file(ThingKind kind, Path path, String title, Duration length, String artist) {
        try {
            return new MediaFile(
                    new ThingId(path.getFileName().toString(), ""),
                    kind,
                    "",
                    title,
                    Optional.empty(),
                    Files.size(path),
                    Optional.empty(),
                    Optional.of(length).filter(any -> !any.isZero()),
                    artist.isEmpty() ? List.of() : List.of(new MediaFile.Fact("Artist", artist)),
                    "");
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private MediaFile picture(String name, String... made) throws Exception {
        return file(ThingKind.PICTURE, ffmpeg(name, made), name, Duration.ZERO, "");
    }

    private Path ffmpeg(String name, String... options) throws Exception {
        var file = folder.resolve(name);
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-y"));
        command.addAll(List.of(options));
        command.add(file.toString());
        assertEquals(0, new ProcessBuilder(command).start().waitFor(), String.join(" ", command));
        return file;
    }

    @Test
    void picturesAreKnownAgainHoweverTheyArePacked() throws Exception {
        var phone = new WrittenReader(folder);
        var drawing = new String[] {"-f", "lavfi", "-i", "mandelbrot=size=1600x1200", "-frames:v", "1", "-q:v", "2"};
        var first = picture("first.jpg", drawing);
        var original = folder.resolve("first.jpg").toString();
        Files.copy(folder.resolve("first.jpg"), folder.resolve("copy.jpg"));
        Files.writeString(folder.resolve("torn.jpg"), "no picture");
        phone.write("first.jpg", first);
        phone.write("copy.jpg", file(ThingKind.PICTURE, folder.resolve("copy.jpg"), "copy.jpg", Duration.ZERO, ""));
        phone.write("small.jpg", picture("small.jpg", "-i", original, "-vf", "scale=400:300", "-q:v", "12"));
        phone.write("packed.webp", picture("packed.webp", "-i", original, "-quality", "40"));
        phone.write("lighter.png", picture("lighter.png", "-i", original, "-vf", "eq=brightness=0.08,scale=800:600"));
        phone.write("turned.jpg", picture("turned.jpg", "-i", original, "-vf", "transpose=1"));
        phone.write(
                "other.jpg", picture("other.jpg", "-f", "lavfi", "-i", "testsrc2=size=1600x1200", "-frames:v", "1"));
        phone.write("life.png", picture("life.png", "-f", "lavfi", "-i", "life=size=160x120:seed=7", "-frames:v", "1"));
        phone.write("torn.jpg", file(ThingKind.PICTURE, folder.resolve("torn.jpg"), "torn.jpg", Duration.ZERO, ""));
        var away = Files.copy(folder.resolve("first.jpg"), folder.resolve("away.jpg"));
        phone.write("away.jpg", file(ThingKind.PICTURE, away, "away.jpg", Duration.ZERO, ""));
        Files.delete(away);
        try (var catalogue = catalogue(phone)) {
            var sets = search(catalogue);
            var same = sets.stream()
                    .filter(set -> set.likeness() == Likeness.SAME_FILE)
                    .toList();
            assertEquals(1, same.size());
            assertEquals(Set.of("first.jpg", "copy.jpg"), Set.copyOf(titles(catalogue, same.getFirst())));
            var alike = sets.stream()
                    .filter(set -> set.likeness() == Likeness.LOOK_ALIKE)
                    .toList();
            assertEquals(1, alike.size(), alike.toString());
            // Of what is the same anyway, one stands for all.
            assertEquals(
                    Set.of("first.jpg", "small.jpg", "packed.webp", "lighter.png"),
                    titles(catalogue, alike.getFirst()).stream()
                            .map(name -> name.replace("copy", "first"))
                            .collect(Collectors.toSet()));
            var largest = titles(catalogue, alike.getFirst()).getFirst();
            assertTrue(largest.equals("first.jpg") || largest.equals("copy.jpg"), largest);
            assertEquals(
                    Set.of("torn.jpg", "away.jpg"),
                    problems.stream().map(Problem::subject).collect(Collectors.toSet()));

            var stopped = new CancelToken();
            stopped.cancel();
            assertThrows(
                    CancellationException.class,
                    () -> OnlyHere.of(
                            catalogue, item -> Files.newInputStream(folder.resolve(item)), folder, n -> {}, stopped));
        }
    }

    private MediaFile song(String name, int seconds, String artist, String title) throws Exception {
        var path = ffmpeg(
                name,
                "-f",
                "lavfi",
                "-i",
                "sine=frequency=440:duration=" + seconds,
                "-metadata",
                "artist=" + artist,
                "-metadata",
                "title=" + title);
        return file(ThingKind.TRACK, path, title, Duration.ofSeconds(seconds), artist);
    }

    @Test
    void songsAreKnownByTheirTagsAndLength() throws Exception {
        var phone = new WrittenReader(folder);
        phone.write("a.mp3", song("a.mp3", 10, "Ærø Choir", "Løft"));
        phone.write("b.m4a", song("b.m4a", 12, "ÆRØ CHOIR", "løft"));
        phone.write("c.mp3", song("c.mp3", 15, "Ærø Choir", "Løft"));
        phone.write("d.mp3", song("d.mp3", 10, "Somebody", "Løft"));
        try (var catalogue = catalogue(phone)) {
            var sets = search(catalogue);
            assertEquals(1, sets.size(), sets.toString());
            assertEquals(Likeness.SAME_SONG, sets.getFirst().likeness());
            assertEquals(Set.of("Løft", "løft"), Set.copyOf(titles(catalogue, sets.getFirst())));
        }
    }

    private List<String> onlyHere(Catalogue catalogue, Path elsewhere) throws IOException {
        var result = OnlyHere.of(
                catalogue, item -> Files.newInputStream(folder.resolve(item)), elsewhere, n -> {}, new CancelToken());
        var numbers = result.verdicts().stream()
                .filter(verdict -> !verdict.elsewhere())
                .mapToLong(Verdict::number)
                .toArray();
        return catalogue.read(numbers).stream()
                .map(entry -> entry.thing().id().item())
                .sorted()
                .toList();
    }

    @Test
    void whatWouldBeLostIsFoundByContentThenByTags() throws Exception {
        var phone = new WrittenReader(folder);
        phone.write("a.mp3", song("a.mp3", 10, "Ærø Choir", "Løft"));
        phone.write("b.mp3", song("b.mp3", 14, "Ærø Choir", "Tide"));
        phone.write("c.jpg", picture("c.jpg", "-f", "lavfi", "-i", "testsrc2=size=320x240", "-frames:v", "1"));
        phone.write("d.jpg", picture("d.jpg", "-f", "lavfi", "-i", "mandelbrot=size=320x240", "-frames:v", "1"));
        var kept = Files.createDirectories(folder.resolve("kept/deep/er"));
        Files.copy(folder.resolve("c.jpg"), kept.resolve("renamed by its owner.jpg"));
        // As long as another file of the phone, and yet another one.
        Files.write(kept.resolve("d.jpg"), new byte[(int) Files.size(folder.resolve("d.jpg"))]);
        ffmpeg("kept/deep/other form.m4a", "-i", folder.resolve("a.mp3").toString());
        ffmpeg("kept/shorter.m4a", "-i", folder.resolve("b.mp3").toString(), "-t", "7");
        Files.createSymbolicLink(kept.resolve("round"), folder.resolve("kept"));
        try (var catalogue = catalogue(phone)) {
            assertEquals(List.of("b.mp3", "d.jpg"), onlyHere(catalogue, folder.resolve("kept")));
            var result = OnlyHere.of(
                    catalogue,
                    item -> Files.newInputStream(folder.resolve(item)),
                    folder.resolve("kept"),
                    n -> {},
                    new CancelToken());
            assertEquals(4, result.files());
            var reasons = result.verdicts().stream().map(Verdict::reason).collect(Collectors.joining("\n"));
            assertTrue(reasons.contains("a song of its artist, title and length is there: "), reasons);
            assertTrue(reasons.contains("but not as long"), reasons);
            assertTrue(reasons.contains("the same content is in "), reasons);

            var m3u = Files.writeString(
                    folder.resolve("list.m3u8"),
                    "#EXTM3U\n#EXTINF:11,Ærø Choir - LØFT\nhttps://example.org/1\n#EXTINF:-1,Ærø Choir - Tide\nx\n"
                            + "kept/deep/er/renamed by its owner.jpg\n");
            assertEquals(List.of("b.mp3", "d.jpg"), onlyHere(catalogue, m3u));
            // XSPF 1, section 4.1: durations in milliseconds, locations as URIs.
            var xspf = Files.writeString(folder.resolve("list.xspf"), """
                    <?xml version="1.0" encoding="UTF-8"?><!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]>
                    <playlist version="1" xmlns="http://xspf.org/ns/0/"><title>Mine</title><trackList>
                    <track><creator>Ærø Choir</creator><title>Tide</title><duration>15000</duration></track>
                    <track><location>kept/deep/er/renamed%20by%20its%20owner.jpg</location></track>
                    </trackList></playlist>
                    """);
            assertEquals(List.of("a.mp3", "d.jpg"), onlyHere(catalogue, xspf));
            for (var bad : List.of("missing", "a.mp3", "torn.xspf")) {
                Files.writeString(folder.resolve("torn.xspf"), "<playlist><track>");
                var told = assertThrows(ProblemException.class, () -> onlyHere(catalogue, folder.resolve(bad)), bad);
                assertFalse(told.problem().advice().isEmpty());
            }
        }
    }
}
