package app.custodex.extract.talk;

import app.custodex.base.Digests;
import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.UnreadableException;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import app.custodex.model.Mail;
import app.custodex.model.Message;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import java.io.BufferedOutputStream;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.security.DigestInputStream;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.apache.james.mime4j.codec.EncoderUtil;
import org.apache.james.mime4j.codec.QuotedPrintableOutputStream;

/**
 * Conversations as mailboxes (RFC 4155), each message a mail (RFC 5322) with what hangs on it, for programs that read mail. Who has no mail
 * address gets one in the domain "invalid", which nobody has (RFC 2606, section 2).
 */
public final class MboxFormat implements Format {
    private static final Choice FILE_EACH = Choice.whether("file-each", "One file a conversation", true);
    private static final Choice ATTACHMENTS = Choice.whether("attachments", "With the attachments", true);
    private static final DateTimeFormatter DATE =
            DateTimeFormatter.ofPattern("EEE, d MMM uuuu HH:mm:ss xx", Locale.ROOT);
    /** RFC 4155, appendix A: that of asctime, in UTC. */
    private static final DateTimeFormatter SEPARATOR =
            DateTimeFormatter.ofPattern("EEE MMM ppd HH:mm:ss uuuu", Locale.ROOT);

    private static final Pattern ADDRESS = Pattern.compile("[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]+@[A-Za-z0-9.-]+");
    private static final Pattern TYPE = Pattern.compile("[A-Za-z0-9.+-]+/[A-Za-z0-9.+-]+");
    private static final Pattern QUOTED = Pattern.compile("(?m)^From ");

    @Override
    public String code() {
        return "mbox";
    }

    @Override
    public String label() {
        return "Mailbox, for mail programs (mbox, RFC 4155)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out states and reactions";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.MESSAGES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(FILE_EACH, ATTACHMENTS);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var talks = Talk.of(batch);
        boolean attached = chosen.is(ATTACHMENTS);
        if (chosen.is(FILE_EACH)) {
            var folder = out.folder(batch.title());
            for (var talk : talks) {
                folder.file(talk.messages().title(), ".mbox", to -> write(talk.messages(), attached, to));
            }
        } else {
            out.file(batch.title(), ".mbox", to -> {
                for (var talk : talks) {
                    write(talk.messages(), attached, to);
                }
            });
        }
    }

    /** A message before what hangs on it. */
    private record Made(String head, byte[] text, List<Attachment> files) {}

    private static void write(Batch messages, boolean attached, OutputStream to) throws IOException {
        for (var made : messages.each(thing -> made(thing, messages))) {
            var there = made.files().stream().filter(Attachment::there).toList();
            made.files().stream()
                    .filter(file -> !attached || !file.there())
                    .forEach(file -> messages.leftOut(
                            file.there()
                                    ? "attachments, which are named only"
                                    : "attachments that the phone no longer has"));
            if (!attached || there.isEmpty()) {
                put(to, made.head() + textHead() + "\n");
                to.write(made.text());
            } else {
                var boundary = "part-"
                        + Digests.of(made.head().getBytes(StandardCharsets.UTF_8))
                                .substring(0, 32);
                put(to, made.head() + "Content-Type: multipart/mixed; boundary=\"" + boundary + "\"\n\n");
                put(to, "--" + boundary + "\n" + textHead() + "\n");
                to.write(made.text());
                for (var file : there) {
                    put(to, "\n--" + boundary + "\n");
                    attach(file, messages, to);
                }
                put(to, "\n--" + boundary + "--\n");
            }
            put(to, "\n");
        }
    }

    private static void put(OutputStream to, String ascii) throws IOException {
        to.write(ascii.getBytes(StandardCharsets.US_ASCII));
    }

    private static String textHead() {
        return "Content-Type: text/plain; charset=UTF-8\nContent-Transfer-Encoding: quoted-printable\n";
    }

    private static void attach(Attachment file, Batch messages, OutputStream to) throws IOException {
        var type = TYPE.matcher(file.type()).matches() ? file.type() : "application/octet-stream";
        put(
                to,
                "Content-Type: " + type
                        + "\nContent-Transfer-Encoding: base64\nContent-Disposition: attachment;\n filename=\""
                        + word(file.title()).replace("\"", "'") + "\"\n\n");
        var digest = Digests.sha512();
        try (var content = messages.material().open(file.item())) {
            encode(new DigestInputStream(content, digest), to);
            messages.compare(file.item(), Digests.hex(digest));
        } catch (UnreadableException e) {
            messages.unreadable(file.item(), "so it is missing in its message");
        }
    }

    private static void encode(InputStream content, OutputStream to) throws IOException {
        var open = new FilterOutputStream(new BufferedOutputStream(to)) {
            @Override
            public void close() throws IOException {
                flush(); // what lies below stays open
            }
        };
        try (var base64 = Base64.getMimeEncoder(76, new byte[] {'\n'}).wrap(open)) {
            content.transferTo(base64);
        }
    }

    private static Made made(Thing thing, Batch in) {
        var at = thing.moment()
                .map(moment -> moment.instant(in.material().zone()))
                .orElse(Instant.EPOCH);
        var date = ZonedDateTime.ofInstant(at, in.material().zone());
        var head = new StringBuilder(
                "From custodex@invalid " + SEPARATOR.format(ZonedDateTime.ofInstant(at, ZoneOffset.UTC)) + "\n");
        head.append("Date: ").append(DATE.format(date)).append('\n');
        switch (thing) {
            case Message message -> {
                head.append("From: ").append(from(message, in)).append('\n');
                header(head, "Subject", in.title());
                message.replyTo()
                        .ifPresent(other -> head.append("In-Reply-To: ")
                                .append(identifier(other))
                                .append('\n'));
            }
            case Mail mail -> {
                head.append("From: ")
                        .append(mail.sender().map(who -> mailbox(who, mail, in)).orElse("unknown@invalid"))
                        .append('\n');
                mail.receivers()
                        .forEach(who -> head.append("To: ")
                                .append(mailbox(who, mail, in))
                                .append('\n'));
                header(head, "Subject", mail.title());
            }
            default -> throw new IllegalArgumentException("no message: " + thing.kind());
        }
        head.append("Message-ID: ").append(identifier(thing.id())).append("\nMIME-Version: 1.0\n");
        return new Made(head.toString(), text(thing), thing.attachments());
    }

    private static String from(Message message, Batch in) {
        return message.sent()
                ? "\"Owner of the phone\" <owner@invalid>"
                : message.sender().map(who -> mailbox(who, message, in)).orElse("unknown@invalid");
    }

    private static String mailbox(Party party, Thing thing, Batch in) {
        var address = party.e164().isEmpty() ? Clean.line(party.address()) : party.e164();
        var local = address.replaceAll("[^A-Za-z0-9+._-]", "");
        var known = ADDRESS.matcher(address).matches() ? address : (local.isEmpty() ? "unknown" : local) + "@invalid";
        return word(in.material().names().of(party, thing)) + " <" + known + ">";
    }

    private static String identifier(ThingId id) {
        return "<" + Digests.of(id.text().getBytes(StandardCharsets.UTF_8)).substring(0, 40) + "@invalid>";
    }

    private static void header(StringBuilder head, String name, String value) {
        head.append(name).append(": ").append(word(value)).append('\n');
    }

    /** RFC 2047 for what is not plain ASCII, or long; nothing of it can begin another header. */
    private static String word(String text) {
        var line = Clean.line(text);
        boolean plain =
                line.length() <= 60 && line.chars().allMatch(c -> Character.isLetterOrDigit(c) && c < 0x80 || c == ' ');
        return plain && !line.isEmpty()
                ? line
                : EncoderUtil.encodeEncodedWord(line, EncoderUtil.Usage.TEXT_TOKEN, 0, StandardCharsets.UTF_8, null)
                        .replace("\r\n", "\n");
    }

    /** Quoted-printable (RFC 2045), with a line that would begin another mail written otherwise. */
    private static byte[] text(Thing thing) {
        var text = Clean.text(thing instanceof Mail mail ? mail.text() : ((Message) thing).text());
        var encoded = new ByteArrayOutputStream();
        try (var quoted = new QuotedPrintableOutputStream(encoded, false)) {
            new ByteArrayInputStream((text + "\n").replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8))
                    .transferTo(quoted);
        } catch (IOException e) {
            throw new IllegalStateException(e); // memory can be written
        }
        var lines = encoded.toString(StandardCharsets.US_ASCII).replace("\r\n", "\n");
        return QUOTED.matcher(lines).replaceAll("=46rom ").getBytes(StandardCharsets.US_ASCII);
    }
}
