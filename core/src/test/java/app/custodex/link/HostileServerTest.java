package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupRun;
import app.custodex.base.CancelToken;
import app.custodex.base.RealDisk;
import app.custodex.strongroom.Strongroom;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Servers that answer with something else, with too much, with half of it, or not at all. */
class HostileServerTest {
    @TempDir
    Path root;

    private final CountDownLatch ended = new CountDownLatch(1);
    private HttpServer server;
    private HttpConnections http;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        http = new HttpConnections();
    }

    @AfterEach
    void stop() {
        ended.countDown();
        http.close();
        server.stop(0);
    }

    private interface Answer {
        void to(HttpExchange exchange) throws Exception;
    }

    private void answer(Answer answer) {
        server.createContext("/", exchange -> {
            try (exchange) {
                answer.to(exchange);
            } catch (IOException hungUp) {
                // Whoever asked has gone.
            } catch (Exception e) {
                throw new IllegalStateException(e);
            }
        });
    }

    private URI address() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/");
    }

    private DavClient dav() {
        return new DavClient(http, address(), request -> {}, () -> "the server");
    }

    private static void send(HttpExchange exchange, int code, String body) throws IOException {
        var bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(code, bytes.length);
        exchange.getResponseBody().write(bytes);
    }

    private static String item(String href, String properties) {
        return "<response><href>" + href + "</href><propstat><prop>" + properties + "</prop></propstat></response>";
    }

    private static String multistatus(String items) {
        return "<multistatus xmlns='DAV:'>" + items + "</multistatus>";
    }

    @Test
    void aListThatGoesOnAndOnIsGivenUp() {
        answer(exchange -> {
            exchange.sendResponseHeaders(207, 0);
            var out = exchange.getResponseBody();
            out.write("<multistatus xmlns='DAV:'>".getBytes(StandardCharsets.UTF_8));
            for (int i = 0; ; i++) {
                out.write(
                        item("/f" + i, "<getcontentlength>1</getcontentlength>").getBytes(StandardCharsets.UTF_8));
            }
        });
        var dav = dav();
        dav.limit(new Limits(1_000, 500, 10, 1_000, 10));
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            var endless = assertThrows(LinkException.Item.class, () -> dav.list(PhonePath.ROOT));
            assertTrue(endless.problem().what().contains("never ends"), endless.getMessage());
            assertEquals(Limits.ADVICE, endless.problem().advice());
        });
    }

    /** A body that stops in the midst of a short answer holds nobody up for longer than the answer may take. */
    @Test
    @Fault(Of.STALL)
    void aStatusWhoseBodyStallsIsALostConnection() {
        answer(exchange -> {
            exchange.sendResponseHeaders(200, 1_000);
            exchange.getResponseBody().write('{');
            exchange.getResponseBody().flush();
            ended.await();
        });
        var request = new HttpGet(address());
        assertTimeoutPreemptively(
                Duration.ofSeconds(20),
                () -> assertThrows(
                        LinkException.Lost.class, () -> http.ask(request, Duration.ofMillis(300), "the phone")));
        try (var phone = new HttpPhoneLink(address())) {
            assertTimeoutPreemptively(
                    Duration.ofSeconds(20), () -> assertThrows(LinkException.Lost.class, phone::status));
        }
    }

    /** Whoever hangs up must not wait for what never comes, and whoever reads must learn of it. */
    @Test
    @Fault(Of.STALL)
    void hangingUpOnABodyThatStallsEndsTheReadAtOnce() throws Exception {
        answer(exchange -> {
            exchange.sendResponseHeaders(200, 1_000);
            exchange.getResponseBody().write('{');
            exchange.getResponseBody().flush();
            ended.await();
        });
        var body = dav().open(new PhonePath("film"), 0).stream();
        assertEquals('{', body.read());
        var reading = new FutureTask<>(body::read);
        var reader = Thread.ofPlatform().start(reading);
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            body.close();
            assertThrows(ExecutionException.class, reading::get);
            reader.join();
        });
    }

    @Test
    void aShortAnswerThatIsLongIsRefused() {
        answer(exchange -> {
            exchange.sendResponseHeaders(200, 0);
            var block = new byte[1 << 16];
            for (int i = 0; i < 1_000; i++) {
                exchange.getResponseBody().write(block);
            }
        });
        var request = new HttpGet(address());
        assertThrows(LinkException.Lost.class, () -> http.ask(request, Duration.ofSeconds(20), "the phone"));
    }

    @Test
    void namesThatAreNoTextAreAskedForByTheirBytes() throws Exception {
        answer(exchange -> {
            if (exchange.getRequestMethod().equals("PROPFIND")) {
                send(
                        exchange,
                        207,
                        multistatus(item("/", "<resourcetype><collection/></resourcetype>")
                                + item("/caf%E9", "<getcontentlength>3</getcontentlength>")
                                + item("/caf%C3%A9", "<getcontentlength>4</getcontentlength>")
                                + item("/a%5CxE9", "<getcontentlength>5</getcontentlength>")));
            } else {
                switch (exchange.getRequestURI().getRawPath()) {
                    case "/caf%E9" -> send(exchange, 200, "raw");
                    case "/caf%C3%A9" -> send(exchange, 200, "text");
                    case "/a%5CxE9" -> send(exchange, 200, "slash");
                    default -> send(exchange, 404, "");
                }
            }
        });
        var dav = dav();
        var names = dav.list(PhonePath.ROOT).stream()
                .map(listed -> listed.path().text())
                .toList();
        assertEquals(List.of("caf\\xE9", "café", "a\\x5CxE9"), names);
        for (var name : names) {
            try (var content = dav.open(new PhonePath(name), 0)) {
                var expected = name.equals("café") ? "text" : name.startsWith("a") ? "slash" : "raw";
                assertArrayEquals(
                        expected.getBytes(StandardCharsets.UTF_8),
                        content.stream().readAllBytes(),
                        name);
            }
        }
    }

    /** The pages that come in place of files when one has to sign in first, and bodies that are not what is listed. */
    @Test
    void pagesInPlaceOfFilesAndBodiesOfAnotherLengthAreNotStored() throws Exception {
        var page = "<html><body>Please sign in to go on</body></html>";
        answer(exchange -> {
            var path = exchange.getRequestURI().getPath();
            if (exchange.getRequestMethod().equals("PROPFIND")) {
                send(
                        exchange,
                        207,
                        multistatus(item("/", "<resourcetype><collection/></resourcetype>")
                                + item("/good", "<getcontentlength>4</getcontentlength><getetag>\"g\"</getetag>")
                                + item("/page", "<getcontentlength>5000</getcontentlength><getetag>\"p\"</getetag>")
                                + item("/weak", "<getcontentlength>4</getcontentlength><getetag>W/\"w\"</getetag>")
                                + item("/other", "<getcontentlength>4</getcontentlength><getetag>\"o\"</getetag>")
                                + item("/moved", "<getcontentlength>4</getcontentlength><getetag>\"m\"</getetag>")));
                return;
            }
            switch (path) {
                case "/good" -> {
                    exchange.getResponseHeaders().set("ETag", "\"g\"");
                    send(exchange, 200, "good");
                }
                case "/weak" -> {
                    exchange.getResponseHeaders().set("ETag", "\"w\"");
                    send(exchange, 200, "weak");
                }
                case "/other" -> {
                    exchange.getResponseHeaders().set("ETag", "\"something else\"");
                    send(exchange, 200, "evil");
                }
                case "/moved" -> {
                    exchange.getResponseHeaders().set("Location", "/page");
                    exchange.sendResponseHeaders(302, -1);
                }
                default -> send(exchange, 200, page);
            }
        });
        var strongroom = Strongroom.make(root, new RealDisk());
        try (var link = new ServerLink()) {
            var result = new BackupRun(
                            link,
                            strongroom,
                            BackupRequest.everything(Duration.ZERO, "test"),
                            Clock.systemUTC(),
                            new CancelToken())
                    .run();
            assertEquals(3, result.layer().missed(), result.problems().toString());
        }
        try (var layer = strongroom.layer("SERVER-1", 1).orElseThrow()) {
            assertEquals(Set.of(new PhonePath("good"), new PhonePath("weak")), Set.copyOf(layer.in(PhonePath.ROOT)));
            assertFalse(layer.has(new PhonePath("page")));
        }
    }

    /** A source that is nothing but a WebDAV tree. */
    private final class ServerLink extends PlainLink {
        private final DavClient files = dav();

        ServerLink() {
            super(Family.FOLDER, new SourceName("SERVER-1", "Server"));
        }

        @Override
        public PhoneStatus status() {
            return status(Set.of(ReadinessStep.REACH), "here", 0, 0);
        }

        @Override
        public List<Listed> list(PhonePath folder) throws LinkException {
            return files.list(folder);
        }

        @Override
        public PhoneContent open(PhonePath file, long offset) throws LinkException {
            return files.open(file, offset);
        }

        @Override
        public void close() {
            // The client is the test's.
        }
    }
}
