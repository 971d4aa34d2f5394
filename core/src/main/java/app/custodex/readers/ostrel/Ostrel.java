package app.custodex.readers.ostrel;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.model.Moment;
import app.custodex.readers.PhoneDatabase.Row;
import app.custodex.readers.Reader;
import app.custodex.readers.chat.BurrowChats;
import app.custodex.readers.chat.KitewireChats;
import app.custodex.readers.files.MediaFiles;
import app.custodex.seal.Passphrase;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What this family keeps, and how it writes times. */
public final class Ostrel {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");

    private Ostrel() {}

    /**
     * The readers of its stores.
     *
     * @param burrowKey the customer's, if it was given
     */
    public static List<Reader> readers(Optional<Passphrase> burrowKey) {
        var readers = new ArrayList<Reader>(List.of(
                new OstrelContacts(),
                new OstrelMessages(),
                new OstrelCalls(),
                new OstrelVoicemail(),
                new OstrelCalendar(),
                new OstrelNotes(),
                new OstrelWeb()));
        readers.add(new KitewireChats(Layout.chatCopies(Family.OSTREL, Kind.KITEWIRE)));
        readers.add(new BurrowChats(Layout.chatCopies(Family.OSTREL, Kind.BURROW), burrowKey));
        readers.addAll(MediaFiles.readers("sound/ring"));
        return readers;
    }

    /** Empty for nothing, for zero, and for what is no time. */
    static Optional<Moment> moment(Row row, String column) throws SQLException {
        return instant(row.number(column)).map(Moment::at);
    }

    static Optional<Instant> instant(long micros) {
        if (micros == 0) {
            return Optional.empty();
        }
        try {
            return Optional.of(EPOCH.plus(micros, ChronoUnit.MICROS));
        } catch (DateTimeException | ArithmeticException e) {
            return Optional.empty();
        }
    }
}
