package app.custodex.extract;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZonedDateTime;
import java.util.Date;
import java.util.List;
import java.util.TimeZone;
import org.apache.james.mime4j.codec.DecodeMonitor;
import org.apache.james.mime4j.dom.BinaryBody;
import org.apache.james.mime4j.dom.Message;
import org.apache.james.mime4j.field.UnstructuredFieldImpl;
import org.apache.james.mime4j.message.BodyPart;
import org.apache.james.mime4j.message.BodyPartBuilder;
import org.apache.james.mime4j.message.DefaultMessageWriter;
import org.apache.james.mime4j.message.MultipartBuilder;
import org.apache.james.mime4j.stream.RawField;
import org.apache.tika.Tika;

/**
 * A mail with files that hang on it, for somebody to look through, address and send (RFC 5322, RFC 2045). It has no sender and no receiver
 * yet.
 *
 * @param attached files on the disk
 */
public record MailDraft(String subject, List<Path> attached) {
    /** Most mailboxes take no more; common practice, no source. */
    static final long MOST = 25L << 20;

    private static final Tika TYPES = new Tika();

    public MailDraft {
        attached = List.copyOf(attached);
    }

    /**
     * Writes it.
     *
     * @throws ProblemException when nothing hangs on it, or more than mailboxes take
     */
    public Path write(ZonedDateTime at, OutFolder out) throws IOException {
        long bytes = 0;
        for (var file : attached) {
            bytes += Files.size(file);
        }
        if (attached.isEmpty() || bytes > MOST) {
            throw new ProblemException(Problem.failure(
                    subject,
                    attached.isEmpty()
                            ? "There is nothing to hang on the mail"
                            : "The files are larger than the 25 MB that most mailboxes take",
                    "Choose " + (attached.isEmpty() ? "some" : "fewer") + " files"));
        }
        return out.file(Clean.line(subject), ".eml", to -> {
            var parts = MultipartBuilder.create("mixed")
                    .addBodyPart(BodyPartBuilder.create()
                            .setBody("\r\n", "plain", StandardCharsets.UTF_8)
                            .setContentTransferEncoding("quoted-printable")
                            .build());
            for (var file : attached) {
                parts.addBodyPart(part(file));
            }
            var message = Message.Builder.of()
                    .setSubject(Clean.line(subject))
                    .setDate(Date.from(at.toInstant()), TimeZone.getTimeZone(at.getZone()))
                    // Not in any standard: by this field several mail programs know that it is still to be sent.
                    .setField(UnstructuredFieldImpl.PARSER.parse(new RawField("X-Unsent", "1"), DecodeMonitor.SILENT))
                    .setBody(parts.build())
                    .build();
            try {
                new DefaultMessageWriter().writeMessage(message, to);
            } finally {
                message.dispose();
            }
        });
    }

    /** The content of a file, read when it is written. */
    private static final class FileBody extends BinaryBody {
        private final Path file;

        FileBody(Path file) {
            this.file = file;
        }

        @Override
        public InputStream getInputStream() throws IOException {
            return Files.newInputStream(file);
        }
    }

    /** A mail inside a mail may not stand in Base64 (RFC 2046, section 5.2.1), so it hangs on it as mere bytes. */
    private static String type(String name) {
        var type = TYPES.detect(name);
        return type.startsWith("message/") || type.startsWith("multipart/") ? "application/octet-stream" : type;
    }

    private static BodyPart part(Path file) throws IOException {
        var name = String.valueOf(file.getFileName());
        return BodyPartBuilder.create()
                .setBody(new FileBody(file))
                .setContentType(type(name))
                .setContentTransferEncoding("base64")
                .setContentDisposition("attachment", name)
                .build();
    }
}
