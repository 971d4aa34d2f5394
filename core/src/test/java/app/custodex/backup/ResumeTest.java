package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.backUp;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.RealDisk;
import app.custodex.link.LinkException;
import app.custodex.link.PhonePath;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What an interrupted copy leaves, what the next one takes over of it, and what it does not. */
class ResumeTest {
    private static final int LARGE = 20_000_000;

    @TempDir
    Path root;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-RESUME");

    private byte[] random(int size, long seed) {
        var bytes = new byte[size];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private void lost() {
        assertThrows(LinkException.Lost.class, () -> backUp(phone, root, disk));
    }

    private Path unfinished(String part) throws IOException {
        try (var files = Files.walk(root.resolve("work"))) {
            return files.filter(file -> file.getFileName().toString().startsWith(part))
                    .findFirst()
                    .orElseThrow();
        }
    }

    private long readBy(Path strongroom) throws IOException {
        long before = phone.bytesRead();
        var result = backUp(phone, strongroom, disk);
        assertTrue(result.check().orElseThrow().sound());
        assertHolds(Strongroom.open(strongroom, disk), phone, 1, phone.state());
        OcflReferee.assertValid(strongroom);
        return phone.bytesRead() - before;
    }

    @Test
    @Fault(Of.CABLE)
    void aLargeItemGoesOnBehindWhatIsStoredOfIt() throws IOException {
        phone.put("film", random(LARGE, 1));
        phone.unplugAfter(15_000_000);
        lost();
        phone.plugIn();
        assertTrue(readBy(root) < 6_000_000, "most of it was there");
    }

    @Test
    @Fault(Of.CABLE)
    void aLargeItemThatChangedMeanwhileIsReadFromItsStart() throws IOException {
        phone.put("film", random(LARGE, 1));
        phone.unplugAfter(15_000_000);
        lost();
        phone.plugIn();
        phone.put("film", random(LARGE, 2), Instant.parse("2026-05-05T00:00:00Z"));
        assertEquals(LARGE, readBy(root));
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void whatIsStoredOfALargeItemIsTakenOverOnlyIfItIsWhatWasWritten() throws IOException {
        phone.put("film", random(LARGE, 1));
        phone.unplugAfter(15_000_000);
        lost();
        phone.plugIn();
        var part = unfinished("file-");
        var bytes = Files.readAllBytes(part);
        bytes[5_000_000] ^= 1;
        Files.write(part, bytes);
        assertEquals(LARGE, readBy(root));
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void aGrowingPackGoesOnBehindItsLastItemThatIsWhole() throws IOException {
        for (int i = 0; i < 30; i++) {
            phone.put("files/" + i, random(1_000_000, i));
        }
        var killed = FaultyDisk.killedAt(85, 1);
        assertThrows(IOException.class, () -> backUp(phone, root, killed));
        var pack = unfinished("pack-");
        long size = Files.size(pack);
        assertTrue(size > 6_000_000, size + " bytes are there");
        var bytes = Files.readAllBytes(pack);
        bytes[3_500_000] ^= 1; // in its fourth item
        Files.write(pack, bytes);
        long read = readBy(root);
        assertTrue(read <= 27_000_000 && read >= 26_000_000, read + " bytes were read: all but the first three items");
    }

    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void aTornOrStrangeJournalCostsWorkAndNothingElse() throws IOException {
        for (int i = 0; i < 12; i++) {
            phone.put("files/" + i, random(1_000_000, i));
        }
        phone.unplugAfter(9_000_000);
        lost();
        phone.plugIn();
        var journal = unfinished("journal-");
        Files.write(journal, new byte[] {(byte) 0xff, 0, '{', '\n', '{'}, StandardOpenOption.APPEND);
        Files.writeString(
                journal,
                "\n{\"entry\":{\"content\":\"../../outside\",\"state\":\"SAFE\",\"size\":1,\"digest\":\"\",\"items\":[]}}\n",
                StandardOpenOption.APPEND);
        assertTrue(readBy(root) < 6_000_000);
    }

    /** A sealed pack that was cut is dropped whole: nothing is sealed twice with one key and one number. */
    @Test
    @Fault(Of.PROCESS_KILLED)
    void ofASealedStackWholePacksAreTakenOverAndCutOnesAreNot() throws IOException {
        for (int i = 0; i < 20; i++) {
            phone.put("files/" + i, random(1_000_000, i));
        }
        var strongroom = Strongroom.make(root, disk);
        var words = "four unrelated words, honest";
        strongroom.seal(phone.identity(), new Passphrase(words.toCharArray()));
        phone.unplugAfter(14_000_000);
        assertThrows(LinkException.Lost.class, () -> run(phone, strongroom).run());
        phone.plugIn();
        try (var files = Files.walk(root)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                var text = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
                assertFalse(text.contains("files/1"), "a name lies in the clear in " + file);
            }
        }
        var again = Strongroom.open(root, disk);
        again.open(phone.identity(), new Passphrase(words.toCharArray()));
        long before = phone.bytesRead();
        assertTrue(run(phone, again).run().check().orElseThrow().sound());
        assertTrue(phone.bytesRead() - before < 10_000_000, "what was whole was there");
        assertHolds(again, phone, 1, phone.state());
        OcflReferee.assertValid(root);
    }

    private long readSealed() throws IOException {
        long before = phone.bytesRead();
        var strongroom = SealedPhone.opened(root, disk, phone.identity());
        var result = run(phone, strongroom).run();
        assertTrue(result.check().orElseThrow().sound());
        assertEquals(List.of(), result.problems());
        assertHolds(strongroom, phone, 1, phone.state());
        OcflReferee.assertValid(root);
        return phone.bytesRead() - before;
    }

    private void lostWhileSealing() throws IOException {
        phone.unplugAfter(15_000_000);
        assertThrows(
                LinkException.Lost.class,
                () -> run(phone, SealedPhone.opened(root, disk, phone.identity()))
                        .run());
        phone.plugIn();
    }

    /** Again and again, each time behind what was sealed: part of it is read twice, none of it is lost. */
    @Test
    @Fault(Of.CABLE)
    void aSealedLargeItemGoesOnBehindItsLastWholePart() throws IOException {
        SealedPhone.seal(root, phone.identity());
        phone.put("film", random(3 * LARGE, 1));
        for (int time = 0; time < 3; time++) {
            lostWhileSealing();
        }
        assertTrue(readSealed() < 32_000_000, "most of it was there");
    }

    /** Other content at the place of what was sealed would give both away; the phone says that it is the same file. */
    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void otherContentIsNeverSealedAtThePlaceOfWhatWasSealed() throws IOException {
        SealedPhone.seal(root, phone.identity());
        var film = random(LARGE, 1);
        phone.put("film", film);
        lostWhileSealing();
        try (var part = FileChannel.open(unfinished("file-"), StandardOpenOption.WRITE)) {
            part.truncate(part.size() - 1_000_000); // as a kill leaves it in the midst of a part
        }
        phone.lie(new PhonePath("film"), random(LARGE, 2));
        assertTrue(readSealed() > LARGE, "it was compared, and then read from its start under another key");
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void whatIsSealedOfALargeItemIsTakenOverOnlyIfItIsWhatWasSealed() throws IOException {
        for (int place : new int[] {3, 40_000, 5_000_000, 13_000_000}) {
            SealedPhone.seal(root, phone.identity());
            phone.put("film", random(LARGE, 1));
            lostWhileSealing();
            var part = unfinished("file-");
            var bytes = Files.readAllBytes(part);
            bytes[place] ^= 1;
            Files.write(part, bytes);
            assertEquals(place > 10_000_000 ? LARGE - 12_582_912 : LARGE, readSealed(), "at " + place);
            disk.delete(root);
        }
    }

    /** A strongroom from before there were second copies and an identity gets them when it is opened. */
    @Test
    void anOlderStrongroomIsBroughtUpToDateWhenItIsOpened() throws IOException {
        phone.put("a", random(1_000, 1));
        backUp(phone, root, disk);
        disk.delete(root.resolve("copies"));
        disk.delete(root.resolve("strongroom.json"));
        var opened = Strongroom.open(root, disk);
        assertEquals(List.of(), opened.examine(java.util.Set.of()));
        assertEquals(
                opened.identity().id(), Strongroom.open(root, disk).identity().id());
        try (var copies = Files.walk(root.resolve("copies"))) {
            assertTrue(copies.anyMatch(copy -> copy.endsWith("0001-manifest.jsonl.gz")));
        }
    }

    @Test
    void aDraftThatWasBegunForAnItemThatIsGoneIsNotPublished() throws IOException {
        phone.put("film", random(LARGE, 1));
        phone.put("small", random(1_000, 2));
        phone.unplugAfter(12_000_000);
        lost();
        phone.plugIn();
        phone.remove(new PhonePath("film"));
        assertTrue(readBy(root) <= 1_000);
        try (var stored = Files.walk(root.resolve("objects"))) {
            assertFalse(stored.anyMatch(file -> file.getFileName().toString().startsWith("file-")));
        }
    }
}
