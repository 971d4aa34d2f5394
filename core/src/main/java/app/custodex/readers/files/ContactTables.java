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
import java.io.IOException;
import java.util.Set;

/**
 * Reads tables of contacts (RFC 4180, with the separators that spreadsheets write). Which column is what is guessed from the titles, and
 * told; a table without names and numbers or addresses is none of contacts.
 */
public final class ContactTables extends FileReader {
    public ContactTables() {
        super("contact-tables", Set.of(Kind.BOOKS, Kind.CONTACTS), Set.of(".csv"), Set.of(ThingKind.CONTACT));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        try (var in = phone.open(path)) {
            var rows = TableRows.of(in);
            if (!rows.hasNext()) {
                return;
            }
            var titles = rows.next().getFields();
            var columns = ContactColumns.of(titles);
            if (!columns.areContacts() || MessageTables.areMessages(titles)) {
                return; // names and numbers stand beside messages too
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
}
