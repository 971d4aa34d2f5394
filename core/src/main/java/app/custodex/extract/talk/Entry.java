package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.Redaction;
import app.custodex.extract.ZoneText;
import app.custodex.model.Attachment;
import app.custodex.model.Mail;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import java.util.List;
import java.util.Optional;

/**
 * A message as it stands on paper, without what was blacked out.
 *
 * @param address of its sender; empty for the owner's
 * @param offset of its time from UTC; empty without a time
 * @param files what hangs on it; none of somebody who was blacked out
 */
record Entry(Thing thing, Line line, String address, String offset, List<Attachment> files) {
    static Entry of(Thing thing, Batch in, Redaction redaction) {
        var line = Line.of(
                thing,
                in,
                attachment -> new Line.File(attachment.title(), "", false),
                answered -> !hides(redaction, answered, in));
        var sender = sender(thing);
        boolean hidden = hides(redaction, thing, in);
        if (hidden) {
            thing.attachments().forEach(attachment -> redaction.all(attachment.title()));
        }
        var zone = in.material().zone();
        return new Entry(
                thing,
                redaction.isEmpty() ? line : redacted(line, redaction, hidden),
                sender.map(Party::reach).map(redaction::text).orElse(""),
                thing.moment()
                        .filter(Moment.At.class::isInstance)
                        .map(at -> ZoneText.of(zone.getRules().getOffset(at.instant(zone))))
                        .orElse(""),
                hidden ? List.of() : thing.attachments());
    }

    private static boolean hides(Redaction redaction, Thing thing, Batch in) {
        return sender(thing)
                .filter(party -> redaction.hides(party, in.material().names().of(party, thing)))
                .isPresent();
    }

    /** What may be told of a message outside of the transcript, such as in an index by which it is found. */
    static List<String> said(Thing thing, Batch in, Redaction redaction) {
        return hides(redaction, thing, in)
                ? List.of()
                : in.said(thing).stream().map(redaction::text).toList();
    }

    private static Line redacted(Line line, Redaction redaction, boolean hidden) {
        return new Line(
                line.day(),
                line.time(),
                line.sent(),
                hidden ? redaction.all(line.who()) : redaction.text(line.who()),
                hidden ? redaction.all(line.subject()) : redaction.text(line.subject()),
                hidden ? redaction.all(line.text()) : redaction.text(line.text()),
                line.marks().stream().map(redaction::text).toList(),
                List.of());
    }

    private static Optional<Party> sender(Thing thing) {
        return switch (thing) {
            case Message message -> message.sender();
            case Mail mail -> mail.sender();
            default -> Optional.empty();
        };
    }

    /** When it was, in which direction it went, and its number among all. */
    String when(boolean evidence, int number, int all) {
        var time = line.time().isEmpty() ? "no time" : line.time();
        if (!evidence) {
            return time;
        }
        var direction = line.sent() ? "sent" : "received" + (address.isEmpty() ? "" : " from " + address);
        return number + " of " + all + " · " + time + " " + offset + " · " + direction;
    }
}
