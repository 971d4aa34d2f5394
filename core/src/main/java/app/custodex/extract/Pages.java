package app.custodex.extract;

import gg.jte.ContentType;
import gg.jte.TemplateEngine;
import gg.jte.TemplateException;
import gg.jte.TemplateOutput;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.Map;
import java.util.concurrent.CancellationException;

/** Writes HTML pages from their templates, which escape all that a phone holds. */
public final class Pages {
    private static final TemplateEngine ENGINE =
            TemplateEngine.createPrecompiled(null, ContentType.Html, null, "app.custodex.extract.pages");

    private Pages() {}

    /** Without the signs that no page can hold. */
    private record CleanOutput(Writer out) implements TemplateOutput {
        @Override
        public void writeContent(String text) {
            try {
                out.write(Clean.text(text));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        @Override
        public void writeContent(String text, int from, int until) {
            writeContent(text.substring(from, until));
        }
    }

    /** @param values what the template asks for, by name */
    public static void render(String template, Map<String, Object> values, Writer out) throws IOException {
        try {
            ENGINE.render(template, values, new CleanOutput(out));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } catch (TemplateException e) {
            switch (e.getCause()) {
                case IOException io -> throw io;
                case UncheckedIOException io -> throw io.getCause();
                case CancellationException stopped -> throw stopped;
                case null, default -> throw e;
            }
        }
    }
}
