package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import app.custodex.base.ProblemException;
import app.custodex.media.MediaSamples;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZonedDateTime;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A mail to be sent, read by Python's mail package. */
class MailDraftTest {
    private static final ZonedDateTime AT = ZonedDateTime.parse("2025-11-14T21:04:11+01:00[Europe/Oslo]");
    private static final String READING = """
            import base64, email, email.policy, json, sys
            mail = email.message_from_binary_file(open(sys.argv[1], 'rb'), policy=email.policy.default)
            print(json.dumps({'subject': mail['subject'], 'date': mail['date'].datetime.isoformat(),
                'defects': [str(d) for d in mail.defects],
                'files': [{'name': part.get_filename(), 'type': part.get_content_type(),
                    'content': base64.b64encode(part.get_payload(decode=True)).decode()}
                    for part in mail.iter_attachments()]}))
            """;

    @TempDir
    private Path folder;

    private Path written(String subject, List<Path> files) throws IOException {
        return new MailDraft(subject, files).write(AT, new DiskFolder(folder.resolve("out"), new WrittenFiles()));
    }

    @Test
    void whatHangsOnItIsWhole() throws IOException {
        var bytes = new byte[100_000];
        new Random(7).nextBytes(bytes);
        var song = Files.write(folder.resolve("Løft \"海\".mp3"), bytes);
        var text = Files.writeString(folder.resolve("a.txt"), "From here on\n.\nit is quiet");
        var mail = Files.writeString(folder.resolve("older.eml"), "Subject: a\r\n\r\nb");
        var draft = written("From Ivo's phone, Ærø\r\nBcc: x@example.org", List.of(song, text, mail));
        var read = Json.LINE.readTree(
                new String(MediaSamples.run("python3", "-c", READING, draft.toString()), StandardCharsets.UTF_8));
        assertEquals(
                "From Ivo's phone, Ærø Bcc: x@example.org", read.get("subject").asText(), "and no field more");
        assertEquals("2025-11-14T21:04:11+01:00", read.get("date").asText());
        assertEquals(0, read.get("defects").size(), read.toString());
        var first = read.get("files").get(0);
        assertEquals("Løft \"海\".mp3", first.get("name").asText());
        assertEquals("audio/mpeg", first.get("type").asText());
        assertArrayEquals(bytes, Base64.getDecoder().decode(first.get("content").asText()));
        var second = read.get("files").get(1);
        assertArrayEquals(
                Files.readAllBytes(text),
                Base64.getDecoder().decode(second.get("content").asText()));
        var third = read.get("files").get(2);
        assertEquals("application/octet-stream", third.get("type").asText());
        assertArrayEquals(
                Files.readAllBytes(mail),
                Base64.getDecoder().decode(third.get("content").asText()));
        // RFC 5322, section 2.1.1: no line has more than 998 characters, and each ends with both signs.
        var lines = Files.readString(draft, StandardCharsets.ISO_8859_1).split("\r\n", -1);
        for (var line : lines) {
            assertTrue(line.length() <= 998 && line.indexOf('\n') < 0 && line.indexOf('\r') < 0, line);
        }
    }

    @Test
    void whatNoMailboxTakesIsRefused() throws IOException {
        assertThrows(ProblemException.class, () -> written("Nothing", List.of()));
        var large = folder.resolve("large.bin");
        try (var file = new RandomAccessFile(large.toFile(), "rw")) {
            file.setLength(MailDraft.MOST + 1);
        }
        var told = assertThrows(ProblemException.class, () -> written("Much", List.of(large)));
        assertTrue(told.problem().sentence().contains("25 MB"), told.problem().sentence());
    }
}
