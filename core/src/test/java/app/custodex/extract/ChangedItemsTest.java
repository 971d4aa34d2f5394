package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Problem;
import app.custodex.catalogue.WrittenReader;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import app.custodex.model.Note;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Items that are not what the layer saved any more: whichever way they come out, it is told. */
class ChangedItemsTest extends ExtractionCase {
    private static final String CHANGED = "It is not what was saved: its digest is another one";

    @ParameterizedTest
    @CsvSource({
        "PICTURES,originals",
        "PICTURES,originals:pictures=png",
        "PICTURES,tar",
        "PICTURES,zip",
        "MESSAGES,originals",
        "MESSAGES,page:attachments",
        "MESSAGES,mbox",
        "MESSAGES,pdf:evidence",
        "NOTES,markdown"
    })
    void eachFormatTellsAndWritesItAllTheSame(KindGroup group, String how) throws IOException {
        for (var form : List.of(Delivery.Form.FILES, Delivery.Form.ZIP)) {
            var result = write(group, how, form);
            var told = result.problems().stream()
                    .filter(problem -> problem.subject().equals("roll/swapped.jpg"))
                    .map(Problem::what)
                    .toList();
            assertTrue(told.contains(CHANGED), how + ": " + told);
            assertEquals(result.problems().size(), told.size(), "and nothing else");
        }
    }

    @Test
    void theBytesThatAreThereAreWritten() throws IOException {
        var files = byName(write(KindGroup.PICTURES, "originals:folders=phone", Delivery.Form.FILES));
        assertEquals("roll/swapped.jpg", Files.readString(files.get("Pictures of a phone/roll/swapped.jpg")));
        assertEquals(2, files.size());
    }

    private ExtractResult write(KindGroup group, String how, Delivery.Form form) throws IOException {
        var phone = new WrittenReader(Files.createDirectories(folder.resolve("phone " + form)));
        for (var path : List.of("roll/swapped.jpg", "roll/whole.jpg")) {
            phone.write(path, file(path, ThingKind.PICTURE, path, Optional.empty(), List.of(), 9));
        }
        var changed = new Attachment("roll/swapped.jpg", "a.jpg", "image/jpeg");
        phone.write("talk", message("1", id("talk", "c"), 1, true, "Look", changed));
        phone.write("notes", new Note(id("notes", "1"), "", "", "Leak", "", Optional.empty(), List.of(changed)));
        try (var made = phone.catalogue(Optional.empty(), 1)) {
            return Written.all(group, how, made, new Delivery(form, Optional.empty()), folder.resolve("out"));
        }
    }
}
