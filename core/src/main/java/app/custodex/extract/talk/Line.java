package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.model.Attachment;
import app.custodex.model.Mail;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * A message as a transcript shows it.
 *
 * @param day as 2026-01-31; empty without a time
 * @param time as 21:04:11; empty without one
 * @param who its sender by name
 * @param subject of a mail; empty for others
 * @param marks what else is known of it: edited, taken back, not sent
 * @param files what hangs on it
 */
public record Line(
        String day,
        String time,
        boolean sent,
        String who,
        String subject,
        String text,
        List<String> marks,
        List<File> files) {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ISO_LOCAL_DATE;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);
    private static final String OWNER = "Owner of the phone";

    /**
     * What hangs on a message.
     *
     * @param address where it was written, below the transcript, as a URI reference; empty when it was not
     */
    public record File(String name, String address, boolean picture) {}

    /**
     * @param in the batch to which the thing belongs
     * @param put writes what hangs on it, or not
     */
    static Line of(Thing thing, Batch in, Function<Attachment, File> put) {
        return of(thing, in, put, answered -> true);
    }

    /** @param mayQuote whether a message may be quoted where another answers it */
    static Line of(Thing thing, Batch in, Function<Attachment, File> put, Predicate<Thing> mayQuote) {
        var zone = in.material().zone();
        var local = thing.moment().map(at -> LocalDateTime.ofInstant(at.instant(zone), zone));
        var files = thing.attachments().stream().map(put).toList();
        var day = local.map(DAY::format).orElse("");
        var time = local.map(TIME::format).orElse("");
        return switch (thing) {
            case Message message ->
                new Line(
                        day,
                        time,
                        message.sent(),
                        message.sent() ? OWNER : name(message.sender(), thing, in),
                        "",
                        text(message),
                        marks(message, in, zone, mayQuote),
                        files);
            case Mail mail ->
                new Line(
                        day,
                        time,
                        false,
                        name(mail.sender(), thing, in),
                        mail.title(),
                        mail.text(),
                        mail.receivers().stream()
                                .map(to -> "to " + in.material().names().of(to, thing))
                                .toList(),
                        files);
            default -> throw new IllegalArgumentException("no message: " + thing.kind());
        };
    }

    private static String text(Message message) {
        boolean nothing = message.text().isBlank() && message.attachments().isEmpty() && !message.deleted();
        return nothing ? "(no text)" : message.text();
    }

    private static String name(Optional<Party> party, Thing thing, Batch in) {
        return party.map(known -> in.material().names().of(known, thing)).orElse("(unknown)");
    }

    private static List<String> marks(Message message, Batch in, ZoneId zone, Predicate<Thing> mayQuote) {
        var marks = new ArrayList<String>();
        if (message.deleted()) {
            marks.add("taken back by its sender");
        }
        message.edited().ifPresent(at -> marks.add("edited " + written(at, zone)));
        if (message.state() == Message.State.FAILED) {
            marks.add("not sent");
        }
        if (message.sent() && message.state() != Message.State.FAILED && message.state() != Message.State.UNKNOWN) {
            marks.add(message.state().name().toLowerCase(Locale.ROOT));
        }
        if (!message.service().isBlank()) {
            marks.add(message.service());
        }
        message.replyTo().ifPresent(other -> marks.add("answers " + quote(other, in, mayQuote)));
        message.reactions()
                .forEach(reaction -> marks.add(reaction.sign() + " "
                        + (reaction.who().isEmpty() ? OWNER : name(reaction.who(), message, in))));
        return marks;
    }

    private static String quote(ThingId other, Batch in, Predicate<Thing> mayQuote) {
        try {
            return in.material()
                    .catalogue()
                    .find(other)
                    .map(found -> mayQuote.test(found.thing())
                            ? "“" + found.thing().title() + "”"
                            : "a message that was blacked out")
                    .orElse("a message that is not here");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String written(Moment at, ZoneId zone) {
        return LocalDateTime.ofInstant(at.instant(zone), zone)
                .format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT));
    }
}
