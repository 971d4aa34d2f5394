package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.exchange.ThingLines;
import app.custodex.model.KindGroup;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;

/** Messages in every format, with content that means harm; what was written is read by others than those who wrote it. */
class MessagesExtractionTest extends ExtractionCase {
    @Test
    void aTranscriptIsHarmlessAndComplete() throws IOException {
        var result = write(KindGroup.MESSAGES, "page");
        var pages = byName(result);
        assertEquals(
                3,
                pages.keySet().stream().filter(name -> name.endsWith(".html")).count(),
                pages.keySet().toString());
        var file = pages.entrySet().stream()
                .filter(each ->
                        each.getKey().contains("script") && each.getKey().endsWith(".html"))
                .findFirst()
                .orElseThrow();
        var page = Jsoup.parse(Files.readString(file.getValue()));
        assertEquals(
                0, page.select("script, iframe, object, [onerror], [onload]").size());
        assertEquals(5, page.select("article").size());
        assertTrue(page.select("article p").get(0).text().endsWith(SCRIPT), "as it was written");
        assertEquals("21:04:11", page.select("time").get(0).text(), "in the chosen zone");
        assertEquals("2025-11-14", page.select("h2").get(0).text());
        assertTrue(page.text().contains("海 👨‍👩‍👧"));
        assertEquals(
                1_000_000,
                page.select("article").get(4).select("p").get(0).text().length());
        // The picture lies where the page says.
        var picture = page.select("img").get(0);
        var there = file.getValue()
                .resolveSibling(
                        URI.create("file:/" + picture.attr("src")).getPath().substring(1));
        assertEquals("parts/wall & \"gate\" #1?.jpg", Files.readString(there));
        assertEquals(
                Instant.parse("2025-11-14T20:04:00Z"),
                Files.getLastModifiedTime(there).toInstant());
        assertTrue(page.text().contains("[gone.jpg]"));
        assertEquals(List.of("attachments that the phone no longer has: 1"), result.leftOut());
        assertTrue(page.select("meta[http-equiv=Content-Security-Policy]")
                .attr("content")
                .startsWith("default-src 'none'"));
    }

    @Test
    void noMessageOfATextCanPassForAnother() throws IOException {
        var result = write(KindGroup.MESSAGES, "text:file-each=no");
        var text = Files.readString(result.files().getFirst());
        assertTrue(
                text.contains("21:05:11  Owner of the phone: =cmd|' /C calc'!A0\n          line two 海"),
                text.substring(0, 900));
        assertFalse(text.contains("\u0000"));
        assertTrue(
                result.leftOut().contains("attachments, which are named only: 2"),
                result.leftOut().toString());
    }

    @Test
    void linesAreReadAgainAsTheThingsTheyAre() throws IOException {
        var file = write(KindGroup.MESSAGES, "json-lines").files().getFirst();
        var lines = Files.readAllLines(file);
        assertEquals(9, lines.size(), "a head, seven messages, an end");
        for (var line : lines) {
            assertTrue(
                    ThingLines.read(line, "file", item -> true).isPresent(),
                    line.substring(0, Math.min(200, line.length())));
        }
    }

    @Test
    void aWholeConversationIsItsMessagesAndAPreviewTouchesNoDisk() throws IOException {
        var conversation = new BitSet();
        conversation.set((int) catalogue.find(id("talk", "t1")).orElseThrow().number());
        var groups = Extraction.groups(catalogue, conversation);
        assertEquals(1, groups.size());
        var messages = groups.getOrDefault(KindGroup.MESSAGES, new long[0]);
        assertEquals(5, messages.length);
        var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
        var preview = new Extraction(material)
                .preview(Written.order(KindGroup.MESSAGES, messages, "text"), 2, new CancelToken());
        assertEquals(1, preview.size());
        assertTrue(new String(preview.getFirst().beginning(), StandardCharsets.UTF_8).contains("Wind is over"));
        try (var left = Files.list(folder)) {
            assertEquals(1, left.count(), "what the catalogue is read with");
        }
    }

    @Test
    void whatIsStoppedLeavesWholeFilesOnly() throws IOException {
        for (var how : List.of("page", "text", "csv", "xlsx", "json-lines", "originals")) {
            var cancel = new CancelToken();
            var into = folder.resolve(how);
            var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
            var numbers = Extraction.groups(catalogue, all()).getOrDefault(KindGroup.MESSAGES, new long[0]);
            assertThrows(
                    CancellationException.class,
                    () -> Written.write(
                            material,
                            List.of(Written.order(KindGroup.MESSAGES, numbers, how)),
                            Delivery.FILES,
                            into,
                            n -> cancel.cancel(),
                            cancel));
            try (var left = Files.walk(into)) {
                assertTrue(left.noneMatch(file -> file.toString().endsWith(".part")), how);
            }
        }
    }

    /** RFC 4155 and RFC 5322 as Python's own mailbox reads them, which shares nothing with what writes. */
    @Test
    void aMailboxHoldsEveryMessageWithWhatHangsOnIt() throws Exception {
        var file = write(KindGroup.MESSAGES, "mbox:file-each=no").files().getFirst();
        var script = """
                import mailbox, sys, email.policy, email.parser, json
                parser = email.parser.BytesParser(policy=email.policy.default)
                for mail in mailbox.mbox(sys.argv[1], factory=parser.parse):
                    body = mail.get_body(('plain',)).get_content()
                    files = [part.get_filename() + '=' + part.get_content().decode() for part in mail.iter_attachments()]
                    print(json.dumps([str(mail['From']), str(mail['Date']), str(mail['Subject']), body[:100], len(body), files]))
                """;
        var process = new ProcessBuilder("/usr/bin/python3", "-c", script, file.toString())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0, output);
        var mails = new ArrayList<JsonNode>();
        for (var line : output.lines().toList()) {
            mails.add(Json.LINE.readTree(line));
        }
        assertEquals(7, mails.size(), output.substring(0, Math.min(2_000, output.length())));
        var first = mails.getFirst();
        assertEquals("Halvard Rook <+447700900112@invalid>", first.get(0).asText());
        assertEquals("Fri, 14 Nov 2025 21:04:11 +0100", first.get(1).asText());
        assertTrue(first.get(2).asText().contains("<script>"), "the whole name of the conversation");
        assertTrue(first.get(3).asText().startsWith("Wind is over the wall. </p><script>"));
        assertTrue(mails.get(1).get(0).asText().endsWith("<owner@invalid>"));
        assertTrue(mails.stream().anyMatch(mail -> mail.get(4).asInt() >= 1_000_000), "the long one is whole");
        assertTrue(
                mails.stream().anyMatch(mail -> mail.get(5).toString().contains("=parts/wall & \\\"gate\\\" #1?.jpg")),
                "its file came along");
        assertTrue(mails.stream().anyMatch(mail -> mail.get(3).asText().strip().equals("From here on it is quiet")));
    }
}
