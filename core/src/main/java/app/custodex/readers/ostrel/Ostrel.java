package app.custodex.readers.ostrel;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import app.custodex.media.SoundCoding;
import app.custodex.model.Attachment;
import app.custodex.model.Moment;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneDatabase.Row;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.chat.BurrowChats;
import app.custodex.readers.chat.KitewireChats;
import app.custodex.readers.files.MailFiles;
import app.custodex.readers.files.MediaFiles;
import app.custodex.readers.files.PlaylistFiles;
import app.custodex.readers.files.RouteFiles;
import app.custodex.seal.Passphrase;
import app.custodex.tones.ToneRules;
import app.custodex.tones.ToneUse;
import java.io.IOException;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** What this family keeps, and how it writes times. */
public final class Ostrel {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");

    private static final MediaFiles.Places PLACES = new MediaFiles.Places(
            Map.of(
                    new PhonePath("sound/ring"), ThingKind.RINGTONE,
                    new PhonePath("sound/podcasts"), ThingKind.PODCAST,
                    new PhonePath("films"), ThingKind.FILM),
            Set.of(OstrelClock.FOLDER, OstrelApps.FOLDER));

    public static final ToneRules TONES = new ToneRules(
            SoundCoding.M4A,
            192,
            ".m4a",
            Map.of(
                    ToneUse.RING, Duration.ofSeconds(40),
                    ToneUse.MESSAGE, Duration.ofSeconds(20),
                    ToneUse.ALARM, Duration.ofSeconds(40)));

    private Ostrel() {}

    /** The file of this path, as something that hangs on something else. */
    static Attachment file(String path, PhoneFiles phone) throws IOException {
        boolean there = PhonePath.parse(path).isPresent()
                && phone.files().has(PhonePath.parse(path).get());
        return new Attachment(there ? path : "", path.substring(path.lastIndexOf('/') + 1), "");
    }

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
                new OstrelWeb(),
                new OstrelRoll(),
                new OstrelSound(),
                new OstrelClock(),
                new OstrelApps()));
        readers.addAll(KitewireChats.editions(Layout.chatCopies(Family.OSTREL, Kind.KITEWIRE), "kitewire-work"));
        readers.add(new BurrowChats(Layout.chatCopies(Family.OSTREL, Kind.BURROW), burrowKey));
        readers.addAll(List.of(new PlaylistFiles(), new RouteFiles(), new MailFiles()));
        readers.addAll(MediaFiles.readers(PLACES));
        readers.addAll(MediaFiles.sent());
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
