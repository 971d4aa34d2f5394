package app.custodex.practice.content;

import app.custodex.base.Json;
import app.custodex.link.Kind;
import com.exceptionfactory.jagged.framework.stream.StandardEncryptingChannelFactory;
import com.exceptionfactory.jagged.x25519.X25519KeyPairGenerator;
import com.exceptionfactory.jagged.x25519.X25519RecipientStanzaWriterFactory;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;

/** The copies that the two chat apps write on a phone when they are told to. */
public final class ChatCopies {
    private static final LocalDateTime WRITTEN = LocalDateTime.of(2026, 1, 18, 20, 30);

    private record Line(String chat, String from, LocalDateTime at, String text) {}

    private static final List<Line> LINES = List.of(
            new Line("Skerrow choir", "Maren Quill", LocalDateTime.of(2026, 1, 8, 18, 2), "Tour bus: ten past SIX"),
            new Line("Skerrow choir", "Halvard Rook", LocalDateTime.of(2026, 1, 8, 18, 4), "In the morning?"),
            new Line("Skerrow choir", "Maren Quill", LocalDateTime.of(2026, 1, 8, 18, 5), "In the morning, Halvard 🎶"),
            new Line("Boat", "Jorun Tasch", LocalDateTime.of(2026, 1, 12, 17, 50), "3,900 and I take her tonight"),
            new Line("Boat", "Fenna Rook", LocalDateTime.of(2026, 1, 12, 17, 52), "Sold. Bring a bucket"));

    /** What stands in the edition of Kitewire that is for work. */
    private static final List<Line> WORK = List.of(
            new Line("Ferry crew", "Eilif Brekke", LocalDateTime.of(2026, 1, 17, 19, 20), "New rota from Monday"),
            new Line(
                    "Ferry crew", "Jorun Tasch", LocalDateTime.of(2026, 1, 17, 19, 24), "Wednesdays off, for bailing"));

    private ChatCopies() {}

    /** A new key for an owner's Burrow: an age identity (age-encryption.org/v1) with its recipient, as text. */
    public static String newKey() throws IOException {
        try {
            var pair = new X25519KeyPairGenerator().generateKeyPair();
            return pair.getPrivate() + " " + pair.getPublic();
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
    }

    /**
     * Writes an app's copy.
     *
     * @param burrowKey as {@link #newKey} gave it
     * @param owner whose phone it is
     */
    public static void write(Kind app, Path folder, String burrowKey, String owner) throws IOException {
        Files.createDirectories(folder);
        if (app == Kind.BURROW) {
            var recipient = burrowKey.substring(burrowKey.indexOf(' ') + 1);
            var file = folder.resolve("copy.jsonl.age");
            Files.write(file, encrypted(burrow(owner), recipient));
            Clips.stamp(file, WRITTEN);
            var media = folder.resolve("media/0001.webp");
            Clips.put("harbour.webp", media, WRITTEN);
            var sealed = folder.resolve("media/0001.webp.age");
            Files.write(sealed, encrypted(Files.readAllBytes(media), recipient));
            Files.delete(media);
            Clips.stamp(sealed, WRITTEN);
        } else {
            kitewire(
                    folder.resolve("kitewire.db"),
                    owner,
                    LINES,
                    "UPDATE message SET media = 'media/0000.webp' WHERE id = 1",
                    "UPDATE message SET body = NULL, deleted = 1 WHERE id = 2",
                    "UPDATE message SET reply_to = 2 WHERE id = 3",
                    "UPDATE message SET media = 'media/0001.webp' WHERE id = 4",
                    "UPDATE message SET edited_at = at + 60000 WHERE id = 5",
                    "INSERT INTO reaction VALUES (3, 'halvard.rook', '👍')",
                    "INSERT INTO call VALUES (1, 2, 'jorun.tasch', " + millis(WRITTEN) + ", 312, 0)");
            Clips.put("harbour.webp", folder.resolve("media/0001.webp"), WRITTEN);
        }
    }

    /** Writes the copy of the edition of Kitewire that is for work, which keeps apart from the other one. */
    public static void writeWork(Path folder, String owner) throws IOException {
        Files.createDirectories(folder);
        kitewire(folder.resolve("kitewire.db"), owner, WORK);
    }

    /** Burrow writes down what happened, line by line; what was changed later stands further down. */
    private static byte[] burrow(String owner) throws IOException {
        var lines = new StringBuilder();
        line(lines, "account", "name", owner);
        for (int chat = 1; chat <= 2; chat++) {
            int number = chat;
            line(
                    lines,
                    "chat",
                    "id",
                    chat,
                    "title",
                    LINES.stream()
                            .filter(l -> chat(l) == number)
                            .findFirst()
                            .orElseThrow()
                            .chat(),
                    "group",
                    chat == 1,
                    "members",
                    LINES.stream()
                            .filter(l -> chat(l) == number)
                            .map(Line::from)
                            .distinct()
                            .toList());
        }
        for (int i = 0; i < LINES.size(); i++) {
            var said = LINES.get(i);
            line(
                    lines,
                    "message",
                    "id",
                    i + 1,
                    "chat",
                    chat(said),
                    "from",
                    said.from(),
                    "at",
                    millis(said.at()),
                    "text",
                    i == 4 ? "Sold. Bring a boat" : said.text(),
                    "reply",
                    i == 2 ? 2 : "",
                    "media",
                    i == 3 ? "media/0001.webp" : i == 0 ? "media/0000.webp" : "");
        }
        line(
                lines,
                "edit",
                "id",
                5,
                "at",
                millis(LINES.get(4).at().plusMinutes(1)),
                "text",
                LINES.get(4).text());
        line(lines, "deletion", "id", 2, "at", millis(LINES.get(1).at().plusMinutes(3)));
        line(lines, "reaction", "id", 3, "from", "Halvard Rook", "sign", "👍");
        line(
                lines,
                "call",
                "id",
                1,
                "chat",
                2,
                "from",
                "Jorun Tasch",
                "at",
                millis(WRITTEN),
                "seconds",
                312,
                "video",
                true);
        return lines.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void line(StringBuilder lines, String is, Object... namesAndValues) throws IOException {
        var line = new LinkedHashMap<String, Object>();
        line.put("is", is);
        for (int i = 0; i < namesAndValues.length; i += 2) {
            line.put((String) namesAndValues[i], namesAndValues[i + 1]);
        }
        lines.append(Json.LINE.writeValueAsString(line)).append('\n');
    }

    private static long millis(LocalDateTime at) {
        return at.toInstant(ZoneOffset.ofHours(1)).toEpochMilli();
    }

    private static byte[] encrypted(byte[] plain, String recipient) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var out = new StandardEncryptingChannelFactory()
                .newEncryptingChannel(
                        Channels.newChannel(bytes),
                        List.of(X25519RecipientStanzaWriterFactory.newRecipientStanzaWriter(recipient)))) {
            for (var left = ByteBuffer.wrap(plain); left.hasRemaining(); ) {
                out.write(left);
            }
        } catch (GeneralSecurityException e) {
            throw new IOException(e);
        }
        return bytes.toByteArray();
    }

    private static String handle(String name) {
        return name.toLowerCase(Locale.ROOT).replace(' ', '.');
    }

    /** @param afterwards statements of what was changed later, and of what hangs on messages */
    private static void kitewire(Path file, String owner, List<Line> lines, String... afterwards) throws IOException {
        Files.deleteIfExists(file);
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                var db = new Tables(connection)) {
            db.execute(
                    "CREATE TABLE account (handle TEXT, name TEXT)",
                    "CREATE TABLE person (handle TEXT PRIMARY KEY, name TEXT)",
                    "CREATE TABLE chat (id INTEGER PRIMARY KEY, title TEXT, is_group INTEGER)",
                    "CREATE TABLE chat_member (chat INTEGER, handle TEXT)",
                    "CREATE TABLE message (id INTEGER PRIMARY KEY, chat INTEGER, sender TEXT, at INTEGER, body TEXT,"
                            + " reply_to INTEGER, edited_at INTEGER, deleted INTEGER, media TEXT)",
                    "CREATE TABLE reaction (message INTEGER, handle TEXT, sign TEXT)",
                    "CREATE TABLE call (id INTEGER PRIMARY KEY, chat INTEGER, caller TEXT, at INTEGER, seconds INTEGER,"
                            + " video INTEGER)",
                    "CREATE INDEX message_at ON message (chat, at)");
            db.put("account", handle(owner), owner);
            for (var title : lines.stream().map(Line::chat).distinct().toList()) {
                db.put("chat", title.equals("Boat") ? 2 : 1, title, !title.equals("Boat"));
            }
            for (var name : lines.stream().map(Line::from).distinct().toList()) {
                db.put("person", handle(name), name);
            }
            for (var line : lines.stream()
                    .map(line -> List.of(chat(line), handle(line.from())))
                    .distinct()
                    .toList()) {
                db.put("chat_member", line.toArray());
            }
            for (int i = 0; i < lines.size(); i++) {
                var line = lines.get(i);
                db.put(
                        "message",
                        i + 1,
                        chat(line),
                        handle(line.from()),
                        millis(line.at()),
                        line.text(),
                        "",
                        "",
                        0,
                        "");
            }
            db.execute(afterwards);
        } catch (SQLException e) {
            throw new IOException(e);
        }
        Clips.stamp(file, WRITTEN);
    }

    private static int chat(Line line) {
        return line.chat().equals("Boat") ? 2 : 1;
    }
}
