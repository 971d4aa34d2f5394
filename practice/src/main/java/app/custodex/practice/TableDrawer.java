package app.custodex.practice;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PastVisit;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeLoft;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Family;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.Filler;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.practice.content.People;
import app.custodex.practice.content.Photographer.Quality;
import app.custodex.practice.content.StoreCounts;
import app.custodex.practice.island.Island;
import app.custodex.practice.island.Islander;
import app.custodex.practice.island.Life;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The practice things of one demo folder: an Ostrel, a Pellow, and a remote account. */
public final class TableDrawer implements PracticeDrawer {
    static final String FACTS = "phone.json";

    private static final Logger LOG = LoggerFactory.getLogger(TableDrawer.class);

    private final Path folder;
    private final List<TablePhone> phones;
    private final LoftServer loft;
    private final CancelToken closing = new CancelToken();
    private final ExecutorService growing = Executors.newThreadPerTaskExecutor(Thread.ofPlatform()
            .name("drawing")
            .daemon()
            .priority(Thread.MIN_PRIORITY)
            .factory());

    private TableDrawer(Path folder, List<TablePhone> phones, LoftServer loft) {
        this.folder = folder;
        this.phones = List.copyOf(phones);
        this.loft = loft;
    }

    @Override
    public List<PracticePhone> phones() {
        return List.copyOf(phones);
    }

    @Override
    public List<PastVisit> history() {
        return PastPhones.visits(folder.resolve("past"));
    }

    @Override
    public void leaveMakersBackups() throws IOException {
        PastPhones.leaveOnComputer(folder.resolve(COMPUTER), folder.resolve("past"));
    }

    @Override
    public void drawMap(Path folder) throws IOException {
        Island.drawOutline(folder);
    }

    /** Draws what takes its time behind the work, each phone by itself. */
    private void grow(Contents contents) {
        for (var phone : phones) {
            growing.execute(() -> {
                try {
                    phone.develop(life(phone.family(), contents), closing);
                } catch (IOException e) {
                    LOG.warn("the pictures of {} could not all be drawn", phone.name(), e);
                }
            });
        }
    }

    private static Islander owner(Family family) {
        return family == Family.OSTREL ? Islander.FENNA : Islander.JORUN;
    }

    private static Life life(Family family, Contents contents) {
        var size = new Island.Size(contents.messages(), contents.calls(), contents.pictures());
        return new Island(contents.seed()).life(owner(family), Life.NOW, size);
    }

    @Override
    public PracticeLoft loft() {
        return loft;
    }

    @Override
    public void close() {
        closing.cancel();
        growing.close(); // waits until the picture in hand is drawn
        phones.forEach(PracticePhone::unplug);
        loft.close();
    }

    /** Opens drawers; found by the service loader. */
    public static final class Maker implements Provider {
        @Override
        public PracticeDrawer open(Path folder, Contents contents) throws IOException {
            try (var makers =
                    Executors.newThreadPerTaskExecutor(Thread.ofPlatform().factory())) {
                var ostrel = makers.submit(() -> phone(folder.resolve("ostrel"), Family.OSTREL, contents));
                var pellow = makers.submit(() -> phone(folder.resolve("pellow"), Family.PELLOW, contents));
                var loft = makers.submit(() -> LoftShelf.open(folder.resolve("loft")));
                var drawer = new TableDrawer(folder, List.of(ostrel.get(), pellow.get()), loft.get());
                grow(drawer, contents);
                return drawer;
            } catch (ExecutionException e) {
                throw e.getCause() instanceof IOException failed ? failed : new IOException(e.getCause());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException(e);
            }
        }

        private static void grow(TableDrawer drawer, Contents contents) {
            if (!contents.sketched() && contents.pictures() == 0) {
                drawer.grow(contents);
            }
        }

        private static TablePhone phone(Path folder, Family family, Contents contents) throws IOException {
            if (!Files.exists(folder.resolve(FACTS))) {
                // The facts are written last, so a phone that was cut while it was made is made anew.
                new RealDisk().delete(folder);
                make(folder, family, contents);
            }
            return new TablePhone(folder);
        }

        private static void make(Path folder, Family family, Contents contents) throws IOException {
            var files = Files.createDirectories(folder.resolve("files"));
            var life = life(family, contents);
            var people = new People(contents.seed(), owner(family))
                    .take(contents.contacts() > 0 ? contents.contacts() : family == Family.OSTREL ? 412 : 168);
            var quality =
                    contents.pictures() > 0 ? Quality.REPEATED : contents.sketched() ? Quality.SKETCH : Quality.FULL;
            StoreCounts counts = switch (family) {
                case OSTREL -> OstrelStore.write(files, life, people, OstrelStore.System.ELEVEN, quality);
                case PELLOW -> PellowStore.write(files, life, people, PellowStore.Base.NINE, quality);
                default -> throw new IllegalArgumentException(family + " is no phone");
            };
            if (contents.files() > 0) {
                Filler.write(files, family, contents.files(), contents.bytes(), contents.seed());
            }
            var facts = facts(family);
            Json.PAGE.writeValue(
                    folder.resolve(FACTS).toFile(), facts.withContents(Census.of(family, files, counts.asKinds())));
        }

        private static Facts facts(Family family) throws IOException {
            int port;
            try (var socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
                port = socket.getLocalPort();
            }
            var phone = family == Family.OSTREL
                    ? Facts.phone(
                            "OS-7F21-0048-9C3E",
                            "Fenna's phone",
                            family,
                            "Ostrel Q5",
                            "OSQ5-7F21-0048",
                            "004401000004123",
                            "Ostrel System 11.2",
                            64_000_000_000L)
                    : Facts.phone(
                            "PB-41D0-7719-02AA",
                            "Jorun's Ridge",
                            family,
                            "Pellow Ridge",
                            "PR9-41D0-7719",
                            "004401000007712",
                            "Pellow Base 9",
                            128_000_000_000L);
            return new Facts(phone, family == Family.OSTREL ? "2468" : "1379", port, ChatCopies.newKey(), List.of());
        }
    }
}
