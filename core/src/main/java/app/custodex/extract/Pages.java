package app.custodex.extract;

import gg.jte.ContentType;
import gg.jte.TemplateEngine;
import gg.jte.TemplateException;
import gg.jte.TemplateOutput;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;

/** Writes HTML pages from their templates, which escape all that a phone holds. */
public final class Pages {
    private static final TemplateEngine ENGINE =
            TemplateEngine.createPrecompiled(null, ContentType.Html, null, "app.custodex.extract.pages");

    /** Those that every browser shows, by the endings of their names. */
    private static final Set<String> PICTURES = Set.of("jpg", "jpeg", "png", "gif", "webp");

    private Pages() {}

    /** The path of a file below the folder of a page, as a URI reference (RFC 3986). */
    public static String reference(String path) {
        try {
            return new URI(null, null, path, null).toASCIIString().replace("?", "%3F");
        } catch (URISyntaxException e) {
            throw new IllegalArgumentException(e);
        }
    }

    /** Whether a browser can show a file of this name as a picture. */
    public static boolean isPicture(String name) {
        return PICTURES.contains(name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT));
    }

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
