package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.model.Contact;
import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.regex.Pattern;

/** Writes contacts as a table (RFC 4180): one row each, as many columns as the fullest contact needs. */
final class ContactTable {
    private static final char BYTE_ORDER_MARK = '\uFEFF';
    /** "CSV injection" is what OWASP calls text that a spreadsheet takes for a formula. */
    private static final Pattern FORMULA = Pattern.compile("[=+\\-@\\t\\r].*", Pattern.DOTALL);

    private static final Pattern TELEPHONE = Pattern.compile("\\+?[0-9][0-9 ()./-]*");

    private final ContactFormat.Csv format;

    ContactTable(ContactFormat.Csv format) {
        this.format = format;
    }

    private record Column(String title, Function<Contact, String> value) {}

    void write(List<Contact> contacts, Writer out, IntConsumer progress, CancelToken cancel) throws IOException {
        if (format.byteOrderMark()) {
            out.write(BYTE_ORDER_MARK);
        }
        var columns = columns(contacts);
        @SuppressWarnings("resource") // the caller closes what lies below
        var csv = CsvWriter.builder().lineDelimiter(LineDelimiter.CRLF).build(out);
        csv.writeRecord(columns.stream().map(Column::title).toList());
        int done = 0;
        for (var contact : contacts) {
            cancel.check();
            csv.writeRecord(columns.stream()
                    .map(column -> cell(column.value().apply(contact)))
                    .toList());
            progress.accept(++done);
        }
        csv.flush();
    }

    private String cell(String text) {
        var clean = Clean.text(text);
        return format.spreadsheetSafe()
                        && FORMULA.matcher(clean).matches()
                        && !TELEPHONE.matcher(clean).matches()
                ? "'" + clean
                : clean;
    }

    private static List<Column> columns(List<Contact> contacts) {
        var columns = new ArrayList<Column>();
        columns.add(new Column("Name", Contact::title));
        columns.add(new Column("Prefix", c -> c.name().prefix()));
        columns.add(new Column("Given name", c -> c.name().given()));
        columns.add(new Column("Middle name", c -> c.name().middle()));
        columns.add(new Column("Family name", c -> c.name().family()));
        columns.add(new Column("Suffix", c -> c.name().suffix()));
        columns.add(new Column("Phonetic given name", c -> c.name().phoneticGiven()));
        columns.add(new Column("Phonetic family name", c -> c.name().phoneticFamily()));
        columns.add(new Column("Nicknames", c -> String.join("\n", c.nicknames())));
        columns.add(new Column("Organisation", c -> c.organisation().name()));
        columns.add(new Column("Department", c -> c.organisation().department()));
        columns.add(new Column("Title", c -> c.organisation().title()));
        columns.add(new Column("Role", c -> c.organisation().role()));
        several(contacts, Contact::phones, "Telephone", (title, at) -> {
            columns.add(new Column(title + " label", c -> at(c.phones(), at, p -> p.label())));
            columns.add(new Column(title, c -> at(c.phones(), at, p -> p.written())));
            columns.add(new Column(title + " E.164", c -> at(c.phones(), at, p -> p.e164())));
        });
        several(contacts, Contact::mails, "E-mail", labelled(columns, Contact::mails));
        several(contacts, Contact::webs, "Website", labelled(columns, Contact::webs));
        several(contacts, Contact::chats, "Chat", labelled(columns, Contact::chats));
        several(contacts, Contact::addresses, "Address", (title, at) -> {
            columns.add(new Column(title + " label", c -> at(c.addresses(), at, a -> a.label())));
            columns.add(new Column(title + " PO box", c -> at(c.addresses(), at, a -> a.box())));
            columns.add(new Column(title + " extended", c -> at(c.addresses(), at, a -> a.extended())));
            columns.add(new Column(title + " street", c -> at(c.addresses(), at, a -> a.street())));
            columns.add(new Column(title + " town", c -> at(c.addresses(), at, a -> a.town())));
            columns.add(new Column(title + " region", c -> at(c.addresses(), at, a -> a.region())));
            columns.add(new Column(title + " postcode", c -> at(c.addresses(), at, a -> a.code())));
            columns.add(new Column(title + " country", c -> at(c.addresses(), at, a -> a.country())));
        });
        columns.add(
                new Column("Birthday", c -> c.birthday().map(Contact.Day::iso).orElse("")));
        columns.add(new Column(
                "Anniversary", c -> c.anniversary().map(Contact.Day::iso).orElse("")));
        several(contacts, Contact::related, "Related", labelled(columns, Contact::related));
        columns.add(new Column("Groups", c -> String.join("\n", c.groups())));
        columns.add(new Column("Notes", c -> String.join("\n", c.notes())));
        columns.add(new Column("Photo", c -> c.hasPhoto() ? "yes" : ""));
        columns.add(new Column(
                "Changed (UTC)", c -> c.changed().map(Object::toString).orElse("")));
        several(contacts, Contact::extras, "Other", (title, at) -> {
            columns.add(new Column(title + " name", c -> at(c.extras(), at, e -> e.name())));
            columns.add(new Column(title, c -> at(c.extras(), at, e -> e.value())));
        });
        columns.add(new Column("Identifier", Contact::uid));
        return columns;
    }

    private interface Group {
        void add(String title, int at);
    }

    private static void several(List<Contact> contacts, Function<Contact, List<?>> values, String title, Group group) {
        int most = contacts.stream().mapToInt(c -> values.apply(c).size()).max().orElse(0);
        for (int i = 0; i < most; i++) {
            group.add(title + " " + (i + 1), i);
        }
    }

    private static Group labelled(List<Column> columns, Function<Contact, List<Contact.Labelled>> values) {
        return (title, at) -> {
            columns.add(new Column(title + " label", c -> at(values.apply(c), at, v -> v.label())));
            columns.add(new Column(title, c -> at(values.apply(c), at, v -> v.value())));
        };
    }

    private static <T> String at(List<T> values, int index, Function<T, String> part) {
        return index < values.size() ? part.apply(values.get(index)) : "";
    }
}
