package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Mail;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.BufferedInputStream;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.apache.james.mime4j.dom.Body;
import org.apache.james.mime4j.dom.Entity;
import org.apache.james.mime4j.dom.Message;
import org.apache.james.mime4j.dom.Multipart;
import org.apache.james.mime4j.dom.TextBody;
import org.apache.james.mime4j.dom.address.AddressList;
import org.apache.james.mime4j.dom.address.Mailbox;
import org.apache.james.mime4j.dom.field.ContentTypeField;
import org.apache.james.mime4j.message.DefaultMessageBuilder;
import org.apache.james.mime4j.stream.MimeConfig;
import org.jsoup.Jsoup;
import org.jspecify.annotations.Nullable;

/** Reads mails (RFC 5322, MIME RFC 2045 to 2047): single ones, and those of a mailbox file (RFC 4155). */
public final class MailFiles extends FileReader {
    private static final String MAILBOX = ".mbox";

    /** Of text; a mail with more is no letter. */
    private static final int LONGEST = 4 << 20;

    private static final Pattern COMMENT = Pattern.compile("\\([^()]*\\)");

    public MailFiles() {
        super("mail", Set.of(Kind.CONVERSATIONS), Set.of(".eml", MAILBOX), Set.of(ThingKind.MAIL));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        try (var in = new BufferedInputStream(phone.open(path), 1 << 16)) {
            if (!path.ending().equals(MAILBOX)) {
                read(new ThingId(path.text(), ""), in.readNBytes(Mailboxes.MAX_BYTES), sink);
                return;
            }
            var mails = new Mailboxes(in);
            int number = 0;
            for (var mail = mails.next(); mail.isPresent(); mail = mails.next()) {
                read(new ThingId(path.text(), Integer.toString(number++)), mail.get(), sink);
            }
            if (mails.leftOut() > 0) {
                sink.problem(Problem.loss(
                        path.text(),
                        "Mails larger than 64 MB were left out: " + mails.leftOut(),
                        "Take the file out as it is"));
            }
            if (number == 0) {
                sink.problem(Problem.failure(
                        path.text(), "There is no mail in this file", "Take it out as a file and look into it"));
            }
        }
    }

    private static void read(ThingId id, byte[] bytes, Sink sink) throws IOException {
        var builder = new DefaultMessageBuilder();
        builder.setMimeEntityConfig(MimeConfig.PERMISSIVE);
        Mail mail;
        try {
            mail = mail(id, builder.parseMessage(new ByteArrayInputStream(bytes)));
        } catch (IOException | RuntimeException e) { // the bytes are here, so it is the mail that is at fault
            sink.problem(Problem.loss(
                    id.text(), "A mail can't be understood", "Take the file out as it is and look into it"));
            return;
        }
        sink.thing(mail);
    }

    private static Mail mail(ThingId id, Message mail) throws IOException {
        var attachments = new ArrayList<Attachment>();
        var plain = new StringBuilder();
        var html = new StringBuilder();
        collect(mail, id, plain, html, attachments);
        var from = mail.getFrom();
        var receivers = new ArrayList<Party>();
        for (var list : new AddressList[] {mail.getTo(), mail.getCc(), mail.getBcc()}) {
            if (list != null) {
                list.flatten().forEach(mailbox -> receivers.add(party(mailbox)));
            }
        }
        return new Mail(
                id,
                "",
                text(mail.getSubject()),
                from == null ? Optional.empty() : from.stream().findFirst().map(MailFiles::party),
                receivers,
                moment(mail),
                (plain.isEmpty() ? Jsoup.parse(html.toString()).wholeText() : plain.toString()).strip(),
                attachments);
    }

    private static void collect(
            Entity entity, ThingId id, StringBuilder plain, StringBuilder html, List<Attachment> attachments)
            throws IOException {
        Body body = entity.getBody();
        var name = name(entity);
        if (body instanceof Multipart multipart) {
            for (var part : multipart.getBodyParts()) {
                collect(part, id, plain, html, attachments);
            }
        } else if (body instanceof Message inner) {
            attachments.add(new Attachment(id.item(), text(inner.getSubject()), "message/rfc822"));
        } else if (body instanceof TextBody text
                && name.isEmpty()
                && !"attachment".equals(entity.getDispositionType())) {
            append("text/html".equals(entity.getMimeType()) ? html : plain, text);
        } else {
            attachments.add(new Attachment(id.item(), name, entity.getMimeType()));
        }
    }

    /** From where it belongs (RFC 2183), or from where it stood before. */
    private static String name(Entity entity) {
        if (entity.getFilename() != null) {
            return entity.getFilename();
        }
        return entity.getHeader() != null
                        && entity.getHeader().getField("Content-Type") instanceof ContentTypeField type
                ? text(type.getParameter("name"))
                : "";
    }

    private static void append(StringBuilder to, TextBody text) throws IOException {
        try (var reader = text.getReader()) {
            var buffer = new char[8192];
            for (int n = reader.read(buffer); n >= 0 && to.length() < LONGEST; n = reader.read(buffer)) {
                to.append(buffer, 0, n);
            }
        }
        if (!to.isEmpty() && to.charAt(to.length() - 1) != '\n') {
            to.append('\n');
        }
    }

    private static Party party(Mailbox mailbox) {
        return new Party(mailbox.getAddress(), "", text(mailbox.getName()));
    }

    /** With the zone that it was written in, which the library drops. */
    private static Optional<Moment> moment(Message mail) {
        var field = mail.getHeader().getField("Date");
        if (field != null) {
            try {
                var written =
                        COMMENT.matcher(field.getBody()).replaceAll("").strip().replaceAll("\\s+", " ");
                var at = ZonedDateTime.parse(written, DateTimeFormatter.RFC_1123_DATE_TIME);
                return Optional.of(new Moment.At(at.toInstant(), Optional.of(at.getZone())));
            } catch (DateTimeException obsolete) {
                // Left to the library.
            }
        }
        return Optional.ofNullable(mail.getDate()).map(date -> Moment.at(date.toInstant()));
    }

    private static String text(@Nullable String value) {
        return value == null ? "" : value;
    }
}
