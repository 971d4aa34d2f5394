package app.custodex.bench;

import app.custodex.exchange.ThingLines;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.Conversation;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;

/**
 * The life of somebody who keeps everything, as JSON lines: messages in 200 conversations, two fifths of them in one, and a fifth as many
 * calls, a tenth as many pictures, a fiftieth as many contacts, over three years.
 */
final class Load {
    static final int CONVERSATIONS = 200;
    private static final long BEGIN = 1_660_000_000L;
    private static final long THREE_YEARS = 94_000_000L;

    private final Random random = new Random(11);
    private final String[] words = new String[8_000];
    private final int messages;
    private long written;

    private Load(int messages) {
        this.messages = messages;
        for (int i = 0; i < words.length; i++) {
            var word = new StringBuilder();
            for (int length = 2 + random.nextInt(8); length > 0; length--) {
                word.append((char) ('a' + random.nextInt(26)));
            }
            words[i] = word.toString();
        }
    }

    /** @return how many things it wrote */
    static long write(Path file, int messages) throws IOException {
        var load = new Load(messages);
        try (var out = Files.newBufferedWriter(file)) {
            out.write(ThingLines.head("Bench", "Europe/Oslo"));
            out.newLine();
            load.all(out);
            out.write(ThingLines.end(load.written));
            out.newLine();
        }
        return load.written;
    }

    private void all(BufferedWriter out) throws IOException {
        for (int i = 0; i < messages / 50; i++) {
            line(out, contact(i));
        }
        for (int i = 0; i < CONVERSATIONS; i++) {
            line(out, new Conversation(talk(i), "", "SMS", "", false, List.of(party(i))));
        }
        for (int i = 0; i < messages; i++) {
            line(out, message(i));
        }
        for (int i = 0; i < messages / 5; i++) {
            line(out, call(i));
        }
        for (int i = 0; i < messages / 10; i++) {
            line(out, picture(i));
        }
    }

    private void line(BufferedWriter out, Thing thing) throws IOException {
        out.write(ThingLines.line(thing));
        out.newLine();
        written++;
    }

    private static ThingId id(String key) {
        return new ThingId("load", key);
    }

    private static ThingId talk(int number) {
        return id("t" + number);
    }

    private static Party party(int number) {
        var written = "+4477009" + (10_000 + number);
        return new Party(written, written, "");
    }

    private String word() {
        return words[(int) (Math.abs(random.nextGaussian()) * 2_000) % words.length];
    }

    private String text() {
        var text = new StringBuilder();
        for (int n = 3 + random.nextInt(22); n > 0; n--) {
            text.append(word()).append(' ');
        }
        if (random.nextInt(50) == 0) {
            text.append("灯台の海");
        }
        return text.toString().strip();
    }

    private Optional<Moment> at(long number, long of) {
        return Optional.of(Moment.at(Instant.ofEpochSecond(BEGIN + THREE_YEARS * number / of)));
    }

    private Message message(int number) {
        boolean sent = number % 2 == 0;
        int talk = random.nextInt(5) < 2 ? 0 : 1 + random.nextInt(CONVERSATIONS - 1);
        List<Attachment> attachments =
                number % 40 == 0 ? List.of(new Attachment("", "picture.jpg", "image/jpeg")) : List.of();
        return new Message(
                id("m" + number),
                "",
                talk(talk),
                at(number, messages),
                sent,
                sent ? Optional.empty() : Optional.of(party(talk)),
                text(),
                "SMS",
                Message.State.DELIVERED,
                attachments,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                false);
    }

    private Call call(int number) {
        var outcomes = Call.Outcome.values();
        return new Call(
                id("c" + number),
                "",
                at(number, messages / 5),
                List.of(party(random.nextInt(CONVERSATIONS))),
                outcomes[random.nextInt(outcomes.length)],
                Call.Medium.VOICE,
                Duration.ofSeconds(random.nextInt(2_000)));
    }

    private MediaFile picture(int number) {
        return new MediaFile(
                id("p" + number),
                ThingKind.PICTURE,
                "",
                "P" + number + ".jpg",
                at(number, messages / 10),
                2_000_000L + random.nextInt(3_000_000),
                Optional.empty(),
                Optional.empty(),
                List.of(
                        new MediaFile.Fact("Size", number % 3 == 0 ? "3024 × 4032" : "4032 × 3024"),
                        new MediaFile.Fact("Camera", "Field " + random.nextInt(4))),
                "");
    }

    private Contact contact(int number) {
        var name = word() + " " + word();
        var reach = party(number).address();
        return new Contact(
                id("k" + number),
                "",
                "",
                new PersonName(name, "", "", "", "", "", "", ""),
                List.of(),
                Organisation.NONE,
                List.of(new PhoneNumber("mobile", reach, reach)),
                List.of(new Labelled("home", "k" + number + "@example.org")),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                false,
                Optional.empty(),
                List.of());
    }
}
