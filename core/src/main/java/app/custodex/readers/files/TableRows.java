package app.custodex.readers.files;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.io.StringReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Iterator;

/** The rows of a table (RFC 4180), with the separators and the charsets that spreadsheets write. */
final class TableRows {
    private static final int HEAD = 1 << 16;

    private TableRows() {}

    /** They throw {@link CsvParseException} where the table is damaged. */
    static Iterator<CsvRecord> of(InputStream raw) throws IOException {
        var in = new BufferedInputStream(raw, HEAD);
        var charset = charset(in);
        return CsvReader.builder()
                .fieldSeparator(separator(in, charset))
                .ofCsvRecord(new InputStreamReader(in, charset))
                .iterator();
    }

    /** UTF-8 or UTF-16 by its mark, UTF-8 if it can be, else Western European. */
    private static Charset charset(InputStream in) throws IOException {
        var head = head(in);
        if (head.length >= 2
                && ((head[0] & 0xff) == 0xfe && (head[1] & 0xff) == 0xff
                        || (head[0] & 0xff) == 0xff && (head[1] & 0xff) == 0xfe)) {
            return StandardCharsets.UTF_16;
        }
        if (head.length >= 3 && (head[0] & 0xff) == 0xef && (head[1] & 0xff) == 0xbb && (head[2] & 0xff) == 0xbf) {
            in.skipNBytes(3);
            return StandardCharsets.UTF_8;
        }
        // A sign may be cut at the end of the head.
        for (int cut = 0; cut < 4 && cut <= head.length; cut++) {
            try {
                StandardCharsets.UTF_8
                        .newDecoder()
                        .onMalformedInput(CodingErrorAction.REPORT)
                        .decode(ByteBuffer.wrap(head, 0, head.length - cut));
                return StandardCharsets.UTF_8;
            } catch (CharacterCodingException e) {
                // Tried with less.
            }
        }
        return Charset.forName("windows-1252");
    }

    private static byte[] head(InputStream in) throws IOException {
        in.mark(HEAD);
        var head = in.readNBytes(HEAD - 1);
        in.reset();
        return head;
    }

    /** The one that splits the titles into the most columns. */
    private static char separator(InputStream in, Charset charset) throws IOException {
        var head = new String(head(in), charset);
        char best = ',';
        int most = 0;
        for (char candidate : new char[] {',', ';', '\t'}) {
            int columns = columns(new StringReader(head), candidate);
            if (columns > most) {
                most = columns;
                best = candidate;
            }
        }
        return best;
    }

    private static int columns(Reader head, char separator) {
        try {
            var rows = CsvReader.builder()
                    .fieldSeparator(separator)
                    .ofCsvRecord(head)
                    .iterator();
            return rows.hasNext() ? rows.next().getFieldCount() : 0;
        } catch (CsvParseException e) {
            return 0;
        }
    }
}
