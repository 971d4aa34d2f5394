package app.custodex.readers.pellow;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads the recordings of callers: files named by a number in order and the caller's, "0001 +44….amr". */
final class PellowVoicemail extends FileReader {
    private static final Pattern NAME = Pattern.compile("\\d+(?: (\\+?[\\d ]+))?\\.amr");

    PellowVoicemail() {
        super("voicemail", Set.of(Kind.VOICEMAIL), Set.of(".amr"), Set.of(ThingKind.VOICEMAIL));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var name = NAME.matcher(path.name());
        var number = name.matches() ? Optional.ofNullable(name.group(1)) : Optional.<String>empty();
        sink.thing(new Voicemail(
                new ThingId(path.text(), ""),
                "",
                Optional.of(Moment.at(phone.files().facts(path).modified())),
                number.map(written -> new Party(written, phone.e164(written), "")),
                Duration.ZERO,
                false,
                new Attachment(path.text(), path.name(), "audio/amr")));
    }
}
