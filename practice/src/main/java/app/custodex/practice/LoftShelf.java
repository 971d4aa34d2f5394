package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.base.RealDisk;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.LoftCopy;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.PellowStore;
import app.custodex.practice.content.People;
import app.custodex.practice.content.Photographer.Quality;
import app.custodex.practice.island.Island;
import app.custodex.practice.island.Islander;
import app.custodex.practice.island.Life;
import com.fasterxml.jackson.core.type.TypeReference;
import java.io.IOException;
import java.net.BindException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Optional;

/** What lies in the simulated remote account: what lives in it itself, an old copy of a whole phone, and one of Burrow. */
final class LoftShelf {
    private static final String LIST = "copies.json";
    private static final String PORT = "port";

    private LoftShelf() {}

    /** Opens the account in a folder, filling it when it is new. */
    static LoftServer open(Path folder) throws IOException {
        if (!Files.exists(folder.resolve(LIST))) {
            new RealDisk().delete(folder);
            fill(folder);
        }
        var copies = Json.PAGE.readValue(folder.resolve(LIST).toFile(), new TypeReference<List<LoftCopy>>() {});
        var server = serve(folder, copies);
        Files.writeString(folder.resolve(PORT), Integer.toString(server.port()));
        return server;
    }

    private static LoftServer serve(Path folder, List<LoftCopy> copies) throws IOException {
        var account = "jorun@example.org";
        var port = folder.resolve(PORT);
        try {
            return new LoftServer(
                    Files.exists(port) ? Integer.parseInt(Files.readString(port).strip()) : 0, account, folder, copies);
        } catch (BindException taken) {
            return new LoftServer(0, account, folder, copies);
        }
    }

    private static void fill(Path folder) throws IOException {
        var phone = Files.createDirectories(folder.resolve("phone-2024"));
        var then = LocalDateTime.of(2024, 11, 3, 19, 30);
        PellowStore.write(
                phone,
                new Island(1).life(Islander.JORUN, then, Island.Size.ORDINARY),
                new People(1, Islander.JORUN).take(64),
                PellowStore.Base.EIGHT,
                Quality.SKETCH);
        var account = account(folder);
        var chat = folder.resolve("burrow-2026");
        ChatCopies.write(
                Kind.BURROW,
                chat.resolve(Layout.chatCopies(Family.PELLOW, Kind.BURROW).text()),
                ChatCopies.newKey(),
                "Jorun Tasch");
        var copies = List.of(
                new LoftCopy(
                        "account",
                        "Contacts, calendars and photos in the account",
                        Instant.parse("2026-01-18T19:00:00Z"),
                        size(account),
                        Family.FOLDER,
                        Optional.empty()),
                new LoftCopy(
                        "burrow-2026",
                        "Burrow chats",
                        Instant.parse("2026-01-17T22:00:00Z"),
                        size(chat),
                        Family.PELLOW,
                        Optional.of(Kind.BURROW)),
                new LoftCopy(
                        "phone-2024",
                        "Jorun's old phone",
                        Instant.parse("2024-11-03T19:30:00Z"),
                        size(phone),
                        Family.PELLOW,
                        Optional.empty()));
        Json.PAGE.writeValue(folder.resolve(LIST).toFile(), copies);
    }

    /** What lives in the account itself: open files in folders of their own. */
    private static Path account(Path folder) throws IOException {
        var account = Files.createDirectories(folder.resolve("account"));
        var phone = folder.resolve("phone-now");
        PellowStore.write(
                phone,
                new Island(1).life(Islander.JORUN, Life.NOW.minusDays(90), Island.Size.ORDINARY),
                new People(1, Islander.JORUN).take(80),
                PellowStore.Base.NINE,
                Quality.SKETCH);
        Files.delete(phone.resolve("Pictures/albums.json"));
        Files.move(phone.resolve("Shared/People"), account.resolve("Contacts"));
        Files.move(phone.resolve("Shared/Calendars"), account.resolve("Calendars"));
        Files.move(phone.resolve("Pictures"), account.resolve("Photos"));
        new RealDisk().delete(phone);
        return account;
    }

    private static long size(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile)
                    .mapToLong(file -> file.toFile().length())
                    .sum();
        }
    }
}
