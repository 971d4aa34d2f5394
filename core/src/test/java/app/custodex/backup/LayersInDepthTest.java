package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.FakePhone.bytes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.app.Checks;
import app.custodex.base.CancelToken;
import app.custodex.base.RealDisk;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.PhonePath;
import app.custodex.link.Withheld;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerChange;
import app.custodex.strongroom.LayerChange.What;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.LayerRecord.Change;
import app.custodex.strongroom.LeftOut;
import app.custodex.strongroom.LeftOut.Why;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Choosing what to take, what a layer says against the one below, and faults that the next layer makes good. */
class LayersInDepthTest {
    private static final Instant SAME = Instant.parse("2026-01-02T03:04:05Z");

    @TempDir
    Path root;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-DEPTH");

    private BackupResult run(Function<BackupRequest, BackupRequest> how) throws IOException {
        return run(how, Clock.systemUTC());
    }

    private BackupResult run(Function<BackupRequest, BackupRequest> how, Clock clock) throws IOException {
        var request = how.apply(BackupRequest.everything(Duration.ZERO, "test"));
        return new BackupRun(phone, Strongroom.make(root, disk), request, clock, new CancelToken()).run();
    }

    private void fill() {
        phone.put("Shared/People/a.vcf", bytes("BEGIN:VCARD"));
        phone.put("Pictures/one.jpg", bytes("one"));
        phone.put("Pictures/two.jpg", bytes("two"));
        phone.put("Music/song.mp3", bytes("la la"));
    }

    private static Map<Kind, Why> why(LayerRecord layer) {
        return layer.left().stream().collect(Collectors.toMap(LeftOut::kind, LeftOut::why));
    }

    @Test
    void wholeKindsAndSingleItemsAreChosenAndTheRestIsNamed() throws IOException {
        fill();
        phone.says(new KindCount(Kind.APPS, 3, 9, 900, Optional.of(Withheld.OUT_OF_REACH)));
        var selection = Selection.of(EnumSet.of(Kind.CONTACTS, Kind.PHOTOS, Kind.APPS))
                .withOnly(Kind.PHOTOS, Set.of(new PhonePath("Pictures/two.jpg")));

        var result = run(request -> request.with(selection));

        assertHolds(
                Strongroom.make(root, disk),
                phone,
                1,
                Map.of(
                        new PhonePath("Shared/People/a.vcf"), bytes("BEGIN:VCARD"),
                        new PhonePath("Pictures/two.jpg"), bytes("two")));
        var why = why(result.layer());
        assertEquals(Why.PARTLY_CHOSEN, why.get(Kind.PHOTOS));
        assertEquals(Why.NOT_CHOSEN, why.get(Kind.MUSIC));
        assertEquals(Why.OUT_OF_REACH, why.get(Kind.APPS));
        assertEquals(Why.NOTHING_THERE, why.get(Kind.NOTES));
        assertFalse(why.containsKey(Kind.CONTACTS));
        assertEquals(0, result.layer().missed(), "what was not asked for is not missing");
    }

    @Test
    void whatIsNotTakenThisTimeIsNotGone() throws IOException {
        fill();
        run(request -> request);
        var contactsOnly = run(request -> request.with(Selection.of(EnumSet.of(Kind.CONTACTS))));
        assertEquals(Change.NONE, contactsOnly.layer().change());

        var whole = run(request -> request);
        assertEquals(0, whole.layer().freshItems(), "what an older layer stores is not copied again");
        assertHolds(Strongroom.make(root, disk), phone, 3, phone.state());
    }

    @Test
    void aSurveySaysBeforehandWhatIsNewAndWhatItNeeds() throws IOException {
        fill();
        run(request -> request);
        phone.put("Pictures/three.jpg", bytes("three!"));
        phone.put("Music/song.mp3", bytes("la la la"));

        var survey = Survey.of(
                phone,
                Strongroom.make(root, disk),
                false,
                app.custodex.link.Limits.USUAL,
                Clock.systemUTC(),
                new CancelToken());

        var photos = survey.amounts(Selection.EVERYTHING).get(Kind.PHOTOS);
        assertEquals(new Survey.Amount(3, 12, 1, 6), photos);
        assertEquals(
                new Survey.Amount(1, 8, 1, 8),
                survey.amounts(Selection.EVERYTHING).get(Kind.MUSIC));
        assertTrue(survey.need(Selection.of(EnumSet.of(Kind.CONTACTS))) < survey.need(Selection.EVERYTHING));
        assertEquals(3, survey.of(Kind.PHOTOS).size());
        assertTrue(survey.compared());
    }

    @Test
    void aLayerSaysWhatCameChangedAndWentByKindAndItem() throws IOException {
        fill();
        run(request -> request);
        phone.put("Pictures/one.jpg", bytes("ONE"));
        phone.put("Pictures/new.jpg", bytes("new"));
        phone.remove(new PhonePath("Music/song.mp3"));

        var layer = run(request -> request).layer();

        assertEquals(new Change(1, 1, 1), layer.change());
        var changes = Strongroom.make(root, disk).changes("PB-DEPTH", 2).stream()
                .collect(Collectors.toMap(change -> change.path().text(), LayerChange::what));
        assertEquals(
                Map.of("Pictures/one.jpg", What.CHANGED, "Pictures/new.jpg", What.ADDED, "Music/song.mp3", What.GONE),
                changes);
        assertEquals(4, Strongroom.make(root, disk).changes("PB-DEPTH", 1).size(), "in a first layer all is added");
    }

    @Test
    void aFileThatOnlyGotANewTimeIsNotChanged() throws IOException {
        fill();
        run(request -> request);
        phone.put("Pictures/one.jpg", bytes("one"));

        assertEquals(Change.NONE, run(request -> request).layer().change());
    }

    /** The phone's ETag would give it away, so it is taken away too, as over a link that has none. */
    @Test
    void readingEverythingFindsAChangeThatKeptSizeAndTime() throws IOException {
        var quiet = new SameEtagPhone("PB-QUIET");
        quiet.put("Notes/plan.txt", bytes("meet at 6"), SAME);
        var strongroom = Strongroom.make(root, disk);
        backUp(quiet, strongroom, false);
        quiet.put("Notes/plan.txt", bytes("meet at 7"), SAME);

        assertEquals(Change.NONE, backUp(quiet, strongroom, false).layer().change(), "it can't be seen from outside");
        var layer = backUp(quiet, strongroom, true).layer();

        assertTrue(layer.readEverything());
        assertEquals(new Change(0, 1, 0), layer.change());
        try (var stored = strongroom.layer("PB-QUIET", 3).orElseThrow();
                var in = stored.open(new PhonePath("Notes/plan.txt"))) {
            assertEquals("meet at 7", new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    private static BackupResult backUp(SameEtagPhone quiet, Strongroom strongroom, boolean everything)
            throws IOException {
        var request = BackupRequest.everything(Duration.ZERO, "test").readingEverything(everything);
        return new BackupRun(quiet, strongroom, request, Clock.systemUTC(), new CancelToken()).run();
    }

    @Test
    void aPhoneIsKnownByItsIdentifierWhateverItIsCalled() throws IOException {
        fill();
        run(request -> request);
        var other = new FakePhone("PB-OTHER");
        other.put("Pictures/one.jpg", bytes("one"));

        Backups.backUp(other, root, disk);

        var holdings = Strongroom.make(root, disk).holdings();
        assertEquals(2, holdings.phones().size(), "both are called \"Test phone\"");
    }

    @Test
    @Fault(Of.PERMISSION)
    void whatLiesInAFolderThatCantBeListedIsMissedAndNotGone() throws IOException {
        fill();
        run(request -> request);
        phone.closeFolder(Optional.of(new PhonePath("Pictures")));

        var result = run(request -> request);

        assertEquals(Change.NONE, result.layer().change());
        assertTrue(result.layer().missed() >= 2, "missed " + result.layer().missed());
        assertEquals("Pictures", result.problems().getFirst().subject());
        phone.closeFolder(Optional.empty());
        assertEquals(0, run(request -> request).layer().missed());
    }

    @Test
    @Fault(Of.CLOCK_SET_BACK)
    void aClockThatWasSetBackHurtsNothing() throws IOException {
        fill();
        run(request -> request, Clock.fixed(Instant.parse("2026-05-01T10:00:00Z"), ZoneOffset.UTC));
        phone.put("Pictures/new.jpg", bytes("new"));

        var result = run(request -> request, Clock.fixed(Instant.parse("2020-01-01T00:00:00Z"), ZoneOffset.UTC));

        assertEquals(2, result.layer().number());
        assertEquals(new Change(1, 0, 0), result.layer().change());
        var strongroom = Strongroom.make(root, disk);
        assertHolds(strongroom, phone, 2, phone.state());
        assertEquals(
                2, strongroom.holdings().phones().getFirst().newest().number(), "the number decides, not the clock");
    }

    private CheckReport check(int layer) throws IOException {
        var strongroom = Strongroom.make(root, disk);
        var stored = strongroom.holdings().phones().getFirst();
        return new Checks(() -> strongroom, Clock.systemUTC())
                .run(stored, List.of(layer), n -> {}, new CancelToken())
                .getFirst();
    }

    private void spoil(String name, int at) throws IOException {
        try (var files = Files.walk(root.resolve("objects"))) {
            var file = files.filter(f -> f.getFileName().toString().startsWith(name))
                    .findFirst()
                    .orElseThrow();
            var content = Files.readAllBytes(file);
            content[at] ^= 1;
            Files.write(file, content);
        }
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void whatIsDamagedComesAnewFromThePhoneAndTheOldLayerIsMendedWithIt() throws IOException {
        fill();
        phone.put("Videos/large.mp4", new byte[5_000_000]);
        run(request -> request);
        var first = phone.state();
        spoil("file-", 77);
        spoil("pack-", 512);
        assertEquals(2, check(1).damage().size());
        assertTrue(
                check(1).items().contains(new PhonePath("Videos/large.mp4")),
                check(1).items().toString());
        assertEquals(2, check(1).items().size(), check(1).items().toString());

        var mended = run(request -> request);

        assertEquals(2, mended.layer().freshItems(), "just what is damaged is read again");
        assertEquals(Change.NONE, mended.layer().change(), "mending is no change");
        assertTrue(mended.check().orElseThrow().sound());
        var strongroom = Strongroom.make(root, disk);
        assertTrue(strongroom.checks().last("PB-DEPTH", 1).orElseThrow().sound(), "read back after the mending");
        assertHolds(strongroom, phone, 1, first);
        OcflReferee.assertValid(root);
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void whatThePhoneNoLongerHasStaysNamedAsDamaged() throws IOException {
        fill();
        run(request -> request);
        spoil("pack-", 512);
        var hit = check(1).items().getFirst();
        phone.remove(hit);

        run(request -> request);

        assertEquals(
                List.of(hit),
                Strongroom.make(root, disk)
                        .checks()
                        .last("PB-DEPTH", 1)
                        .orElseThrow()
                        .items());
    }

    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void aDamagedListOfItemsIsMendedFromItsSecondCopy() throws IOException {
        fill();
        run(request -> request);
        spoil("manifest", 60);
        assertFalse(check(1).sound());

        var result = run(request -> request);

        assertTrue(
                result.problems().getFirst().what().contains("mended"),
                result.problems().toString());
        assertEquals(0, result.layer().freshItems(), "nothing had to be copied anew");
        assertTrue(check(1).sound());
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void aListOfItemsThatIsLostIsToldAndThePhoneIsCopiedAnewOnTop() throws IOException {
        fill();
        run(request -> request);
        spoil("manifest", 60);
        disk.delete(root.resolve("copies"));
        assertFalse(check(1).sound());

        var result = run(request -> request);

        assertEquals(2, result.layer().number());
        assertTrue(
                result.problems().stream().anyMatch(problem -> problem.subject().contains("layer 1")),
                result.problems().toString());
        assertHolds(Strongroom.make(root, disk), phone, 2, phone.state());
    }
}
