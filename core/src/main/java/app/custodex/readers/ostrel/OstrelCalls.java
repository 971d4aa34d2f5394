package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Call;
import app.custodex.model.Call.Medium;
import app.custodex.model.Call.Outcome;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
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
import java.util.Set;

/** Reads the calls. Before System 10 a row said only whether it was made or taken, and a length of zero was a missed one. */
final class OstrelCalls extends StoreReader {
    private static final String STORE = "store/calls/calls.db";

    OstrelCalls() {
        super("calls", new PhonePath(STORE), Set.of(ThingKind.CALL));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        boolean newer = database.has("call", "outcome");
        losses.require(
                "calls",
                database.each(
                        "call",
                        List.of("id", "address", "name", "outcome", "medium", "app", "made", "at", "seconds"),
                        row -> sink.thing(call(row, newer, phone))));
    }

    private static Call call(Row row, boolean newer, PhoneFiles phone) throws SQLException {
        var address = row.text("address");
        var length = Duration.ofSeconds(Math.max(0, row.number("seconds")));
        return new Call(
                new ThingId(STORE, Long.toString(row.number("id"))),
                row.text("app"),
                Ostrel.moment(row, "at"),
                List.of(new Party(address, phone.e164(address), row.text("name"))),
                newer ? outcome(row.number("outcome")) : olderOutcome(row.flag("made"), length),
                medium(row),
                length);
    }

    private static Outcome outcome(long code) {
        return switch ((int) Math.clamp(code, 0, 9)) {
            case 1 -> Outcome.MADE;
            case 2 -> Outcome.TAKEN;
            case 4 -> Outcome.DECLINED;
            default -> Outcome.MISSED;
        };
    }

    private static Outcome olderOutcome(boolean made, Duration length) {
        return made ? Outcome.MADE : length.isZero() ? Outcome.MISSED : Outcome.TAKEN;
    }

    private static Medium medium(Row row) throws SQLException {
        return !row.text("app").isEmpty() ? Medium.APP : row.number("medium") == 2 ? Medium.VIDEO : Medium.VOICE;
    }
}
