package app.custodex.files;

import app.custodex.facts.FileFacts;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/** The text of a document, page by page or chapter by chapter, in paragraphs. */
public final class DocumentText {
    private static final Pattern EMPTY_LINES = Pattern.compile("\\R\\s*\\R");

    /**
     * A paragraph.
     *
     * @param page it is on, from 1
     * @param first whether it is the first on it
     */
    public record Paragraph(int page, boolean first, String text) {}

    private DocumentText() {}

    /** The text up to a length, without marks of pages. */
    public static String beginning(String text, int most) {
        var beginning = text.length() > most ? text.substring(0, most) + "…" : text;
        return beginning.replace(FileFacts.PAGE, '\n');
    }

    /** @param text as {@link FileFacts#text} has it */
    public static List<Paragraph> paragraphs(String text) {
        var paragraphs = new ArrayList<Paragraph>();
        int page = 0;
        for (var each : text.split(Character.toString(FileFacts.PAGE))) {
            if (each.isBlank()) {
                continue; // a heading at the top of a page begins it only once
            }
            page++;
            boolean first = true;
            for (var paragraph : EMPTY_LINES.split(each)) {
                if (!paragraph.isBlank()) {
                    paragraphs.add(new Paragraph(page, first, paragraph.strip().replaceAll("[ \\t]+", " ")));
                    first = false;
                }
            }
        }
        return paragraphs;
    }
}
