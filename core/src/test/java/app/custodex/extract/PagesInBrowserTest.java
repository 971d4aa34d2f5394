package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.WrittenReader;
import app.custodex.extract.Delivery.Form;
import app.custodex.media.MediaSamples;
import app.custodex.model.Conversation;
import app.custodex.model.KindGroup;
import app.custodex.model.Note;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Pages with hostile words, opened in a browser: nothing of the data runs, and nobody is asked for anything. */
class PagesInBrowserTest extends ExtractionCase {
    private final List<String> requests = Collections.synchronizedList(new ArrayList<>());
    private Optional<HttpServer> server = Optional.empty();
    private String hostile = "";

    @BeforeEach
    void listen() throws IOException {
        var listening = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        listening.createContext("/", exchange -> {
            requests.add(exchange.getRequestURI().toString());
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        listening.start();
        server = Optional.of(listening);
        var asks = "http://127.0.0.1:" + listening.getAddress().getPort() + "/";
        hostile = "</p></bdi></title><script>document.title='run'; fetch('" + asks + "script')</script><img src=" + asks
                + "image onerror=\"document.title='run'\"><link rel=stylesheet href=" + asks + "style><iframe src="
                + asks + "frame></iframe><meta http-equiv=refresh content='0;url=" + asks + "refresh'>";
    }

    @AfterEach
    void silence() {
        server.ifPresent(listening -> listening.stop(0));
    }

    /** What the page has become, once its scripts had three seconds. */
    private Document opened(Path page) throws IOException {
        var dom = MediaSamples.run(
                "chromium",
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--user-data-dir=" + folder.resolve("browser"),
                "--virtual-time-budget=3000",
                "--dump-dom",
                page.toUri().toString());
        return Jsoup.parse(new String(dom, StandardCharsets.UTF_8));
    }

    private ExtractResult hostilePhone(KindGroup group, String how, Delivery delivery) throws IOException {
        var phone = new WrittenReader(folder);
        var talk = id("hostile", "t");
        phone.write(
                "hostile",
                new Conversation(talk, hostile, "SMS", hostile, false, List.of(HALVARD)),
                message("m", talk, 1, false, hostile + " and the kettle"),
                new Note(id("hostile", "n"), "", hostile, hostile, hostile, Optional.empty(), List.of()));
        try (var other = phone.catalogue(Optional.empty(), 1)) {
            var numbers = Extraction.groups(other, all()).getOrDefault(group, new long[0]);
            var material = new Written.FromCatalogue(other, contact -> Optional.empty(), OSLO);
            return Written.write(
                    material, List.of(Written.order(group, numbers, how)), delivery, folder.resolve("out"));
        }
    }

    private static Path page(ExtractResult result, String part) {
        return result.files().stream()
                .filter(file ->
                        file.toString().endsWith(".html") && file.toString().contains(part))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aPageShowsHostileWordsAndRunsNone() throws IOException {
        for (var page : List.of(
                page(hostilePhone(KindGroup.MESSAGES, "page", Delivery.FILES), ""),
                page(hostilePhone(KindGroup.NOTES, "page", Delivery.FILES), ""),
                page(hostilePhone(KindGroup.NOTES, "list", Delivery.FILES), ""))) {
            var shown = opened(page);
            assertTrue(shown.text().contains("document.title='run'"), "as words, in " + page);
            assertFalse(shown.title().equals("run"), page.toString());
            assertEquals(0, shown.select("script, iframe, link, img").size(), page.toString());
        }
        assertEquals(List.of(), requests);
    }

    @Test
    void theStartPageLeadsToWhatIsThereAndAsksNobody() throws IOException {
        var bag = hostilePhone(KindGroup.MESSAGES, "page", new Delivery(Form.BAG, Optional.empty()));
        var shown = opened(page(bag, "Start here"));
        assertFalse(shown.title().equals("run"));
        assertTrue(shown.text().contains("Messages"), shown.text());
        assertEquals(List.of(), requests);
        assertFalse(shown.select("input").isEmpty(), "there is a field to find in it");
    }
}
