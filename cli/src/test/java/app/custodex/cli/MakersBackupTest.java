package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What makers' own programs left on this computer, and what this program itself wrote, from the command line. */
class MakersBackupTest extends CommandTest {
    private static final String NOOR = "Noor's Ridge";
    private static final String WORDS = "bread for thirty on Fridays";

    private List<String> looked() {
        return done("source", "look").out().lines().toList();
    }

    private String place(List<String> looked, String name) {
        return looked.stream()
                .filter(line -> line.contains(name))
                .map(line -> line.substring(line.lastIndexOf('\t') + 1))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void itIsFoundOpenedWithItsPassphraseAndReadLikeThePhone() throws IOException {
        assertEquals(List.of("There is none on this computer."), looked());
        drawer.leaveMakersBackups();
        var looked = looked();
        assertEquals(2, looked.size());
        assertTrue(looked.getFirst().contains("under a passphrase"), looked.getFirst());
        assertTrue(
                looked.getFirst().contains("PR8-90C4-2218") && looked.getFirst().startsWith("2025-02-16T"));

        done("source", "add", place(looked, NOOR));
        assertTrue(done("source", "list").out().contains("maker's backup"));
        secrets("a guess");
        assertCode(1, "This passphrase does not open the backup", runOwn("backup", NOOR, "--secrets-stdin"));
        secrets(WORDS);
        var copied = doneOwn("backup", NOOR, "--quiet", "--secrets-stdin").out();
        assertTrue(copied.contains("sound") && copied.contains("Calls. Shares a file with another kind"), copied);
        var calls = doneOwn("list", NOOR, "--kind", "call").out().lines().count();
        assertTrue(calls > 50, calls + " calls, which lie in the file of the messages");
        // Straight, too; nothing of it is kept.
        secrets(WORDS);
        assertEquals(
                calls,
                doneOwn("list", "3", "--straight", "--kind", "call", "--secrets-stdin")
                        .out()
                        .lines()
                        .count());

        Files.createDirectories(home().practice().resolve("computer/Pellow copies/half a copy"));
        assertCode(3, "It holds no backup that can be read here", run("source", "look"));
    }

    @Test
    void whatIsListedAsJsonIsReadAgainFromAFolder() throws IOException {
        drawer.leaveMakersBackups();
        done("source", "add", place(looked(), "Ivo's phone"));
        doneOwn("backup", "Ivo's phone", "--quiet");
        var kinds = "contact,conversation,message,call,event,task,note,bookmark";
        var json = doneOwn("list", "Ivo's phone", "--kind", kinds, "--json").out();
        var written = Files.createDirectories(folder.resolve("taken"));
        Files.writeString(written.resolve("things.jsonl"), json);

        done("source", "add", written.toString(), "--name", "Taken");
        var told = doneOwn("list", "4", "--straight").out();
        for (var line : doneOwn("list", "Ivo's phone").out().lines().toList()) {
            var kind = line.substring(line.indexOf('\t') + 1);
            if (List.of("Contacts", "Conversations", "Messages", "Calls", "Events", "Notes")
                    .contains(kind)) {
                assertTrue(told.lines().anyMatch(line::equals), line + " is not in\n" + told);
            }
        }
        // Half of it says so.
        Files.writeString(written.resolve("things.jsonl"), json.substring(0, json.length() / 2));
        assertCode(3, "It breaks off behind", runOwn("list", "4", "--straight", "--kind", "message"));
        assertFalse(Files.exists(Path.of("things.jsonl")));
    }
}
