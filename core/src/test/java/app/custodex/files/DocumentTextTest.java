package app.custodex.files;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.files.DocumentText.Paragraph;
import java.util.List;
import org.junit.jupiter.api.Test;

final class DocumentTextTest {
    @Test
    void aDocumentIsReadPageByPageInParagraphs() {
        assertEquals(
                List.of(
                        new Paragraph(1, true, "One"),
                        new Paragraph(1, false, "goes\non"),
                        new Paragraph(2, true, "Two \u0442\u0440\u0438")),
                DocumentText.paragraphs("One\n \n\ngoes\non\f\f \n\fTwo \t \u0442\u0440\u0438\n\n"));
        assertEquals(List.of(), DocumentText.paragraphs(" \f\n"));
    }

    @Test
    void itsBeginningHasNoMarks() {
        assertEquals("a\nb", DocumentText.beginning("a\fb", 3));
        assertEquals("a\n\u2026", DocumentText.beginning("a\fb", 2));
    }
}
