package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class JsonLogTest {
    record Entry(int number, String words) {
        Entry {
            Objects.requireNonNull(words);
        }
    }

    @TempDir
    Path folder;

    private Path file() {
        return folder.resolve("log.jsonl");
    }

    private JsonLog<Entry> log() {
        return new JsonLog<>(file(), new RealDisk(), Entry.class);
    }

    private static Entry entry(int number) {
        return new Entry(number, "Ω, \"quoted\" and \n broken");
    }

    private List<Integer> numbers() throws IOException {
        return log().read().entries().stream().map(Entry::number).toList();
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void aLineThatWasCutGivesWayToTheNextOne() throws IOException {
        log().append(entry(1));
        int whole = (int) Files.size(file());
        log().append(entry(2));
        var bytes = Files.readAllBytes(file());
        for (int cut = whole + 1; cut < bytes.length; cut++) {
            Files.write(file(), java.util.Arrays.copyOf(bytes, cut));
            boolean onlyTheLineBreakWasCut = cut == bytes.length - 1;
            assertEquals(onlyTheLineBreakWasCut ? List.of(1, 2) : List.of(1), numbers(), "cut at " + cut);
            log().append(entry(3));
            log().append(entry(4));
            assertEquals(onlyTheLineBreakWasCut ? List.of(1, 2, 3, 4) : List.of(1, 3, 4), numbers(), "cut at " + cut);
            assertEquals(List.of(), log().read().damaged(), "a cut is no damage");
        }
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void everyChangedBitIsFoundOrChangesNothing() throws IOException {
        log().append(entry(1));
        log().append(entry(2));
        var bytes = Files.readAllBytes(file());
        for (int bit = 0; bit < bytes.length * 8; bit++) {
            var hit = bytes.clone();
            hit[bit / 8] ^= (byte) (1 << bit % 8);
            Files.write(file(), hit);
            var read = log().read();
            boolean said = !read.damaged().isEmpty();
            assertTrue(
                    said || read.entries().equals(List.of(entry(1), entry(2))),
                    "bit " + bit + ": " + new String(hit, StandardCharsets.UTF_8));
        }
    }

    @Test
    void whatIsNoTextAtAllCostsItsOwnLine() throws IOException {
        log().append(entry(1));
        Files.write(
                file(), new byte[] {(byte) 0xff, (byte) 0xfe, 0, '\n', '{', '}', '[', '\n'}, StandardOpenOption.APPEND);
        log().append(entry(2));
        assertEquals(List.of(1, 2), numbers());
        assertEquals(List.of(2, 3), log().read().damaged());
        assertTrue(log().read().problem("The list").orElseThrow().what().startsWith("2 of its lines"));
    }

    @Test
    @Fault(Of.TWO_PROGRAMS)
    void severalAppendAtOnceAndNothingIsLost() throws Exception {
        var jobs = new ArrayList<Callable<Boolean>>();
        IntStream.range(0, 60)
                .forEach(n -> jobs.add(() -> {
                    log().append(entry(n));
                    return true;
                }));
        try (var threads = Executors.newFixedThreadPool(6)) {
            for (var done : threads.invokeAll(jobs)) {
                assertTrue(done.get());
            }
        }
        assertEquals(60, new HashSet<>(numbers()).size());
        assertEquals(List.of(), log().read().damaged());
    }
}
