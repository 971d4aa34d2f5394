package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneDatabase.Row;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads what callers left on the phone; the recordings lie beside the database. */
final class OstrelVoicemail extends StoreReader {
    private static final String FOLDER = "store/voicemail/";
    private static final String STORE = FOLDER + "voicemail.db";

    OstrelVoicemail() {
        super("voicemail", new PhonePath(STORE), Set.of(ThingKind.VOICEMAIL));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        losses.require(
                "voicemail",
                database.each(
                        "mail",
                        List.of("id", "address", "name", "at", "seconds", "heard", "path"),
                        row -> sink.thing(voicemail(row, phone))));
    }

    private static Voicemail voicemail(Row row, PhoneFiles phone) throws SQLException, IOException {
        var address = row.text("address");
        var item = FOLDER + row.text("path");
        boolean there = phone.files().has(new PhonePath(item));
        return new Voicemail(
                new ThingId(STORE, Long.toString(row.number("id"))),
                "",
                Ostrel.moment(row, "at"),
                address.isEmpty()
                        ? Optional.empty()
                        : Optional.of(new Party(address, phone.e164(address), row.text("name"))),
                Duration.ofSeconds(Math.max(0, row.number("seconds"))),
                row.flag("heard"),
                new Attachment(there ? item : "", row.text("path"), "audio/amr"));
    }
}
