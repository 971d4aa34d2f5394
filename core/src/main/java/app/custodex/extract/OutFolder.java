package app.custodex.extract;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;

/** A folder into which formats write their files. Nothing that is there is overwritten: a name that is taken gets a number. */
public interface OutFolder {
    /** Writes what stands in a file. */
    interface Body {
        void writeTo(OutputStream out) throws IOException;
    }

    /** Writes what stands in a text file, UTF-8. What is no character becomes a question mark. */
    interface Text {
        void writeTo(Writer out) throws IOException;
    }

    /** A new folder inside this one. */
    OutFolder folder(String wish) throws IOException;

    /** A folder inside this one that may be there already, because it was asked for before. */
    OutFolder sharedFolder(String wish) throws IOException;

    /**
     * Writes a file.
     *
     * @param wish its name, as far as it can be a safe one
     * @param ending with the dot
     */
    Path file(String wish, String ending, Body body) throws IOException;

    /** Writes a text file; see {@link #file}. */
    default Path text(String wish, String ending, Text text) throws IOException {
        return file(wish, ending, out -> {
            var writer = new OutputStreamWriter(out, StandardCharsets.UTF_8);
            text.writeTo(writer);
            writer.flush();
        });
    }

    /** Writes an original, byte for byte, with the time at which it was last changed. A preview does not read it. */
    WrittenFile original(String name, InputStream content, Instant modified) throws IOException;

    /** Whether nothing of what is written stays, so that nobody need take pains with the content. */
    default boolean isPreview() {
        return false;
    }

    /** The path of a file below this folder, with "/" between folders. */
    String relative(Path file);
}
