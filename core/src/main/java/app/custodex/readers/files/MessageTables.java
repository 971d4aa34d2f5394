package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Conversation;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.search.Fold;
import de.siegmar.fastcsv.reader.CsvParseException;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Reads tables of messages that other programs wrote. Which column is what is guessed from the titles, and told; a table without texts,
 * times and people is none of messages. Whom one wrote to makes a conversation.
 */
public final class MessageTables extends FileReader {
    private static final Pattern WHEN = Pattern.compile(
            "(date|time|timestamp|when)( (and )?time)?|(date|time) (sent|received)|sent|received|(sent|received) (at|on)");
    private static final Pattern WHO = Pattern.compile(
            "from|sender|to|recipient|(contact|chat|sender|phone)( name| number)?|name|number|address|participants?|conversation");
    private static final Pattern TEXT = Pattern.compile("text|message|body|content|message text|message body");
    private static final Pattern WAY = Pattern.compile("direction|type|way|status|folder|box");
    private static final Pattern OUT = Pattern.compile("out.*|sent|from me|me");
    private static final Pattern NUMBER = Pattern.compile("[+()\\d][\\d ()./-]{4,}");

    /** Seconds since 1970 have up to ten digits until the year 2286, milliseconds thirteen. */
    private static final int SECONDS_DIGITS = 10;

    public MessageTables() {
        super(
                "message-tables",
                Set.of(Kind.BOOKS, Kind.CONTACTS, Kind.CONVERSATIONS),
                Set.of(".csv"),
                Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE));
    }

    /** Places of columns; less than zero for none. */
    private record Columns(int when, int who, int text, int way) {
        static Columns of(List<String> titles) {
            var folded = titles.stream()
                    .map(title ->
                            Fold.fold(title).replaceAll("[^\\p{L}\\p{N}]+", " ").strip())
                    .toList();
            return new Columns(first(folded, WHEN), first(folded, WHO), first(folded, TEXT), first(folded, WAY));
        }

        private static int first(List<String> titles, Pattern title) {
            for (int i = 0; i < titles.size(); i++) {
                if (title.matcher(titles.get(i)).matches()) {
                    return i;
                }
            }
            return -1;
        }

        boolean areMessages() {
            return when >= 0 && who >= 0 && text >= 0;
        }
    }

    /** Whether a table with these titles is one of messages. */
    static boolean areMessages(List<String> titles) {
        return Columns.of(titles).areMessages();
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        try (var in = phone.open(path)) {
            var rows = TableRows.of(in);
            if (!rows.hasNext()) {
                return;
            }
            var titles = rows.next().getFields();
            var columns = Columns.of(titles);
            if (!columns.areMessages()) {
                return;
            }
            sink.problem(Problem.note(
                    path.text(), told(titles, columns), "Take it out as a file where a column is another one"));
            var known = new HashSet<String>();
            int timeless = 0;
            for (int number = 0; rows.hasNext(); number++) {
                var message = message(path, number, rows.next().getFields(), columns, phone, known, sink);
                timeless += message.moment().isEmpty() ? 1 : 0;
                sink.thing(message);
            }
            if (timeless > 0) {
                sink.problem(Problem.loss(
                        path.text(),
                        "The times of " + timeless + " of its messages can't be understood",
                        "Times as 2026-01-31 18:05:00 are; take it out as a file for the others"));
            }
        } catch (CsvParseException damaged) {
            sink.problem(Problem.loss(
                    path.text(),
                    "The table breaks off or is damaged",
                    "Take it out as a file, and compare it with an older layer"));
        }
    }

    private static String told(List<String> titles, Columns columns) {
        return "Read as messages by the titles of its columns: "
                + titles.get(columns.when()).strip() + " as time, "
                + titles.get(columns.who()).strip() + " as person, "
                + titles.get(columns.text()).strip() + " as text"
                + (columns.way() < 0
                        ? "; all taken as received"
                        : ", " + titles.get(columns.way()).strip() + " as sent or received");
    }

    private static Message message(
            PhonePath path,
            int number,
            List<String> row,
            Columns columns,
            PhoneFiles phone,
            Set<String> known,
            Sink sink)
            throws IOException {
        var who = cell(row, columns.who());
        var party = NUMBER.matcher(who).matches() || who.indexOf('@') > 0
                ? new Party(who, phone.e164(who), "")
                : Party.named(who);
        var talk = new ThingId(path.text(), "with-" + who);
        if (known.add(who)) {
            sink.thing(new Conversation(talk, "", "", "", false, List.of(party)));
        }
        boolean sent = columns.way() >= 0
                && OUT.matcher(Fold.fold(cell(row, columns.way()))).matches();
        return new Message(
                new ThingId(path.text(), Integer.toString(number)),
                "",
                talk,
                moment(cell(row, columns.when())),
                sent,
                sent ? Optional.empty() : Optional.of(party),
                cell(row, columns.text()),
                "",
                Message.State.UNKNOWN,
                List.of(),
                Optional.empty(),
                List.of(),
                Optional.empty(),
                false);
    }

    private static String cell(List<String> row, int column) {
        return column >= 0 && column < row.size() ? row.get(column).strip() : "";
    }

    /** ISO 8601, also with a space in the middle, and seconds or milliseconds since 1970. Of 3/4/2025 nobody knows what it means. */
    private static Optional<Moment> moment(String written) {
        try {
            if (written.matches("\\d{9,13}")) {
                long number = Long.parseLong(written);
                return Optional.of(Moment.at(
                        written.length() <= SECONDS_DIGITS
                                ? Instant.ofEpochSecond(number)
                                : Instant.ofEpochMilli(number)));
            }
            var iso = written.replaceFirst("^(\\d{4}-\\d\\d-\\d\\d) +", "$1T").replaceFirst(" (?=[+-])", "");
            return Optional.of(
                    iso.matches(".*([Zz]|[+-]\\d\\d:?\\d\\d)")
                            ? Moment.at(OffsetDateTime.parse(iso.replaceFirst("([+-]\\d\\d)(\\d\\d)$", "$1:$2"))
                                    .toInstant())
                            : new Moment.Floating(LocalDateTime.parse(iso)));
        } catch (DateTimeException strange) {
            return Optional.empty();
        }
    }
}
