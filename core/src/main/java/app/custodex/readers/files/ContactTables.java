package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
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
import java.util.Set;

/**
 * Reads tables of contacts (RFC 4180, with the separators that spreadsheets write). Which column is what is guessed from the titles, and
 * told; a table without names and numbers or addresses is none of contacts.
 */
public final class ContactTables extends FileReader {
    private static final int HEAD = 1 << 16;

    public ContactTables() {
        super("contact-tables", Set.of(Kind.BOOKS, Kind.CONTACTS), Set.of(".csv"), Set.of(ThingKind.CONTACT));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        try (var in = new BufferedInputStream(phone.open(path), HEAD)) {
            var charset = charset(in);
            var separator = separator(in, charset);
            var text = new InputStreamReader(in, charset);
            var rows = CsvReader.builder()
                    .fieldSeparator(separator)
                    .ofCsvRecord(text)
                    .iterator();
            if (!rows.hasNext()) {
                return;
            }
            var columns = ContactColumns.of(rows.next().getFields());
            if (!columns.areContacts()) {
                return;
            }
            sink.problem(
                    Problem.note(path.text(), columns.told(), "Take it out as a file where a column is another one"));
            int number = 0;
            while (rows.hasNext()) {
                var fields = rows.next().getFields();
                if (fields.stream().anyMatch(field -> !field.isBlank())) {
                    sink.thing(
                            columns.contact(new ThingId(path.text(), Integer.toString(number)), fields, phone::e164));
                }
                number++;
            }
        } catch (CsvParseException damaged) {
            sink.problem(Problem.loss(
                    path.text(),
                    "The table breaks off or is damaged",
                    "Take it out as a file, and compare it with an older layer"));
        }
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
