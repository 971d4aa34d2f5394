package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Home;
import app.custodex.app.Sources;
import app.custodex.drawer.PracticeDrawer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** A home with the practice phones plugged in, the first of them ready, and commands that are given to the program. */
@SuppressWarnings("NullAway.Init") // set before each test
abstract class CommandTest {
    @TempDir
    Path folder;

    PracticeDrawer drawer;

    @BeforeEach
    void plugIn() throws IOException {
        var home = home();
        drawer = PracticeHome.drawer(home);
        for (var phone : drawer.phones()) {
            phone.plugIn();
            Sources.of(home).rememberPhone(phone.family().code(), phone.address());
        }
        drawer.phones().getFirst().makeReady();
    }

    @AfterEach
    void close() {
        drawer.close();
        SecretOption.in = System.in;
    }

    Home home() {
        return new Home(folder.resolve("home"));
    }

    record Answer(int code, String out, String err) {
        String all() {
            return code + "\n" + out + "\n" + err;
        }
    }

    /** What is typed when the program asks for something secret. */
    static void secrets(String... lines) {
        SecretOption.in = new ByteArrayInputStream((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8));
    }

    Answer run(String... words) {
        var arguments = new ArrayList<>(List.of(words));
        arguments.add("--home");
        arguments.add(home().root().toString());
        var out = new StringWriter();
        var err = new StringWriter();
        int code = Main.run(new PrintWriter(out), new PrintWriter(err), arguments.toArray(String[]::new));
        return new Answer(code, out.toString(), err.toString());
    }

    /** The same of what needs a docket, without a customer. */
    Answer runOwn(String... words) {
        var arguments = new ArrayList<>(List.of(words));
        arguments.add("--no-customer");
        return run(arguments.toArray(String[]::new));
    }

    Answer done(String... words) {
        var answer = run(words);
        assertEquals(0, answer.code(), answer.all());
        return answer;
    }

    Answer doneOwn(String... words) {
        var answer = runOwn(words);
        assertEquals(0, answer.code(), answer.all());
        return answer;
    }

    static void assertCode(int code, String part, Answer answer) {
        assertEquals(code, answer.code(), answer.all());
        assertTrue(answer.all().contains(part), answer.all());
    }
}
