package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.RealDisk;
import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.IThrowableProxy;
import ch.qos.logback.core.read.ListAppender;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;

/** Consent, a drive that is away, damage, and what is kept out of logs, from the command line. */
class RulesTest extends CommandTest {
    private static final String WORDS = "herring ladder violet 9 quarry";

    @Test
    void nothingIsCopiedOrReadWithoutADocketThatSaysSo() {
        assertCode(1, "No docket says whose it is", run("backup", "ostrel", "--quiet"));
        assertCode(
                0,
                "Docket 0001",
                run("docket", "open", "ostrel", "--customer", "Fenna Rook", "--reason", "wants a copy"));
        assertCode(1, "consent is not on it", run("backup", "ostrel", "--quiet"));
        assertCode(0, "consent: a copy", run("docket", "consent", "1", "a copy"));
        assertCode(0, "layer 1", run("backup", "ostrel", "--quiet"));
        assertCode(0, "Halvard Rook", run("contacts", "Fenna's phone"));
        assertCode(0, "no consent", run("docket", "withdraw", "1"));
        assertCode(1, "nothing may be read", run("contacts", "Fenna's phone"));
        assertCode(1, "nothing may be copied", run("backup", "ostrel", "--quiet", "--docket", "1"));
        assertCode(1, "no such docket", run("docket", "withdraw", "12"));
        assertCode(0, "Halvard Rook", run("contacts", "Fenna's phone", "--no-customer"));
        assertCode(0, "no consent", run("docket", "list"));
    }

    @Test
    void aDriveThatIsAwayIsToldByEveryCommandAndNothingIsMadeInItsPlace() throws IOException {
        secrets(WORDS, WORDS);
        assertCode(0, "sealed", run("backup", "ostrel", "--quiet", "--no-customer", "--seal", "--secrets-stdin"));
        var strongroom = folder.resolve("home/strongroom");
        Files.move(strongroom, folder.resolve("unplugged"));
        Files.createDirectories(strongroom);
        for (var command : List.of(
                List.of("layers"),
                List.of("check"),
                List.of("backup", "ostrel", "--quiet", "--no-customer"),
                List.of("strongroom", "show"),
                List.of("contacts", "Fenna's phone"))) {
            assertCode(1, "Plug in the drive", run(command.toArray(String[]::new)));
        }
        try (var made = Files.list(strongroom)) {
            assertEquals(0, made.count());
        }
        Files.delete(strongroom);
        Files.move(folder.resolve("unplugged"), strongroom);
        assertCode(0, "sealed", run("layers"));
    }

    @Test
    void damageIsSaidByTheExitCodeAndMended() throws IOException {
        assertCode(0, "layer 1", run("backup", "ostrel", "--quiet", "--no-customer"));
        assertCode(0, "sound", run("check"));
        try (var all = Files.walk(folder.resolve("home/strongroom/objects"))) {
            Files.delete(all.filter(file -> file.endsWith("0=ocfl_object_1.1"))
                    .findFirst()
                    .orElseThrow());
        }
        assertCode(3, "0=ocfl_object_1.1: It is gone", run("layers"));
        assertCode(3, "0=ocfl_object_1.1: It is gone", run("check"));
        assertCode(0, "It was mended", run("strongroom", "mend"));
        assertCode(0, "Nothing to mend", run("strongroom", "mend"));
        assertCode(0, "sound", run("check"));
        new RealDisk().delete(folder.resolve("home/strongroom/objects"));
        assertCode(3, "gone from the disk", run("layers"));
    }

    /** The whole job at the most talkative level: what is a customer's, and what opens it, is in no log and no list. */
    @Test
    void logsAndListsHoldNothingOfTheCustomers() throws IOException {
        var context = (LoggerContext) LoggerFactory.getILoggerFactory();
        var logged = new ListAppender<ILoggingEvent>();
        logged.setContext(context);
        logged.start();
        var top = context.getLogger(Logger.ROOT_LOGGER_NAME);
        var level = top.getLevel();
        top.addAppender(logged);
        top.setLevel(Level.ALL);
        try {
            run(
                    "docket",
                    "open",
                    "ostrel",
                    "--customer",
                    "Fenna Rook",
                    "--reason",
                    "wants a copy",
                    "--consent",
                    "a copy");
            secrets(WORDS, WORDS);
            assertCode(0, "sealed", run("backup", "ostrel", "--quiet", "--seal", "--secrets-stdin"));
            secrets("not this one");
            run("contacts", "Fenna's phone", "--secrets-stdin");
            secrets(WORDS);
            assertCode(
                    0,
                    "items written",
                    run(
                            "extract",
                            "Fenna's phone",
                            "--to",
                            folder.resolve("out").toString(),
                            "--secrets-stdin"));
            var loft = drawer.loft();
            run("source", "add", "loft:" + loft.address(), "--name", "Loft");
            secrets("918273");
            run("backup", "Loft", "--quiet", "--no-customer", "--account", loft.account(), "--secrets-stdin");
            drawer.phones().getFirst().unplug();
            run("backup", "ostrel", "--quiet");
        } finally {
            top.setLevel(level);
            top.detachAppender(logged);
        }
        var told = new StringBuilder(Files.readString(folder.resolve("home/runs.jsonl")));
        for (var event : List.copyOf(logged.list)) {
            told.append(event.getFormattedMessage()).append('\n');
            for (IThrowableProxy e = event.getThrowableProxy(); e != null; e = e.getCause()) {
                told.append(e.getMessage()).append('\n');
            }
        }
        assertTrue(logged.list.size() > 0, "something was logged");
        var secrets = new TreeSet<>(List.of(
                WORDS, "not this one", "918273", "Halvard", "AGE-SECRET-KEY", "Bearer ", "BEGIN:VCARD", "@example"));
        secrets.add(drawer.phones().getFirst().burrowKey().split(" ", 2)[0]);
        for (var secret : secrets) {
            int at = told.indexOf(secret);
            assertFalse(at >= 0, () -> secret + ": " + told.substring(Math.max(0, at - 200), at + 50));
        }
    }

    @Test
    void whatATerminalWouldObeyIsNotPrinted() throws IOException {
        var card = Files.createDirectory(folder.resolve("card"));
        Files.write(card.resolve("red\u001b[31m.txt"), new byte[] {1});
        Files.createSymbolicLink(card.resolve("link"), Path.of("to\u001b]0;title\u0007"));
        assertCode(0, "Bay 3", run("source", "add", card.toString(), "--name", "Ca\u001b[1mrd"));
        var told = run("backup", "3", "--quiet", "--no-customer").all()
                + run("survey", "3", "--items").all()
                + run("source", "list").all()
                + run("layers").all()
                + run("phones").all();
        assertTrue(told.contains("red [31m.txt"), told);
        assertFalse(told.chars().anyMatch(c -> Character.isISOControl(c) && c != '\n'), told);
    }
}
