package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import app.custodex.base.Json;
import app.custodex.extract.Delivery.Form;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.model.Samples;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import nu.validator.client.EmbeddedValidator;
import org.junit.jupiter.api.Test;

/** Every HTML page that is written, by the checker of the HTML standard's own authors (Nu Html Checker). */
class HtmlValidityTest extends ExtractionCase {
    /** Its schemas nest deeper than an ordinary stack. */
    private static final long STACK = 64L << 20;

    /** What is wrong with a page; it is checked on a stack of its own. */
    private static List<String> errors(byte[] page) throws Exception {
        var found = new CompletableFuture<String>();
        var thread = new Thread(
                null,
                () -> {
                    try {
                        var checker = new EmbeddedValidator();
                        checker.setOutputFormat(EmbeddedValidator.OutputFormat.JSON);
                        found.complete(checker.validate(new ByteArrayInputStream(page)));
                    } catch (Exception | StackOverflowError e) {
                        found.completeExceptionally(e);
                    }
                },
                "html",
                STACK);
        thread.start();
        var errors = new ArrayList<String>();
        for (var message : Json.LINE.readTree(found.get()).get("messages")) {
            if (message.get("type").asText().equals("error")) {
                errors.add(message.get("message").asText() + " at "
                        + message.path("extract").asText());
            }
        }
        return errors;
    }

    private static void assertValid(ExtractResult result) throws Exception {
        var pages = result.files().stream()
                .filter(file -> file.toString().endsWith(".html"))
                .toList();
        assertFalse(pages.isEmpty());
        for (var page : pages) {
            assertEquals(List.of(), errors(small(page)), page.toString());
        }
    }

    /** Without the message of a megabyte, which says nothing more of its form. */
    private static byte[] small(Path page) throws IOException {
        return Files.readString(page).replaceAll("x{1000,}", "xx").getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void pagesOfEveryGroupAreValid() throws Exception {
        assertValid(write(KindGroup.MESSAGES, "page"));
        assertValid(write(KindGroup.NOTES, "page"));
        assertValid(write(KindGroup.CALLS, "list:totals"));
        for (var group :
                List.of(KindGroup.VOICEMAIL, KindGroup.EVENTS, KindGroup.WEB, KindGroup.PICTURES, KindGroup.MUSIC)) {
            assertValid(write(group, "list"));
        }
        var contact = Samples.contact(
                id("people", "1"),
                SCRIPT,
                List.of(new Contact.PhoneNumber("<b>", "07700 900112", "+447700900112")),
                List.of(new Contact.Labelled("home", "a&b@example.org")),
                List.of("</dl>\u0000\u202E"));
        assertValid(Written.contacts("page", List.of(contact), folder.resolve("contacts")));
    }

    @Test
    void theStartPageIsValid() throws Exception {
        var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
        var groups = Extraction.groups(catalogue, all());
        var result = Written.write(
                material,
                List.of(Written.order(KindGroup.CALLS, groups.getOrDefault(KindGroup.CALLS, new long[0]), "list")),
                new Delivery(Form.BAG, Optional.empty()),
                folder.resolve("bag"));
        assertValid(result);
    }

    @Test
    void theCheckerFindsWhatIsWrong() throws Exception {
        var page = "<!DOCTYPE html><html lang=en><title>a</title><p><div></p><img src=a>";
        assertFalse(errors(page.getBytes(StandardCharsets.UTF_8)).isEmpty());
    }
}
