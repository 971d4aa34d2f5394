package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What goes over the wire, against a server that says word for word what each test wants (RFC 9112). */
class HttpConnectionsTest {
    private final HttpConnections http = new HttpConnections();
    private final AtomicInteger connections = new AtomicInteger();
    private final List<String> requests = new CopyOnWriteArrayList<>();
    private ServerSocket server;

    @BeforeEach
    void listen() throws IOException {
        server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    }

    @AfterEach
    void close() throws IOException {
        http.close();
        server.close();
    }

    /** Answers the requests of each connection with these, one after the other, and hangs up behind the last. */
    private void answers(String... words) {
        Thread.ofVirtual().start(() -> {
            while (true) {
                try {
                    var socket = server.accept();
                    connections.incrementAndGet();
                    Thread.ofVirtual().start(() -> serve(socket, words));
                } catch (IOException closed) {
                    return;
                }
            }
        });
    }

    private void serve(Socket socket, String... words) {
        try (socket) {
            var in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
            for (var answer : words) {
                var request = new StringBuilder();
                for (var line = in.readLine(); !line.isEmpty(); line = in.readLine()) {
                    request.append(line).append('\n');
                }
                requests.add(request.toString());
                socket.getOutputStream().write(answer.getBytes(StandardCharsets.ISO_8859_1));
            }
        } catch (IOException | NullPointerException hungUp) {
            // Whoever asked has gone.
        }
    }

    private HttpGet get(String path) {
        return new HttpGet(URI.create("http://127.0.0.1:" + server.getLocalPort() + path));
    }

    private static String ok(String body) {
        return "HTTP/1.1 200 OK\r\nContent-Length: " + body.length() + "\r\n\r\n" + body;
    }

    private HttpConnections.Answer ask(String path) throws LinkException {
        return http.ask(get(path), Duration.ofSeconds(20), "the server");
    }

    private String body(String path) throws IOException {
        return new String(ask(path).body(), StandardCharsets.ISO_8859_1);
    }

    @Test
    void aConnectionWhoseBodyWasReadServesTheNextRequest() throws IOException {
        answers(ok("one"), ok("two"), ok("three"));
        for (var word : List.of("one", "two", "three")) {
            try (var reply = http.send(get("/"))) {
                // Exactly as much as was promised, as a copy reads: the end itself is never asked for.
                var bytes = reply.body().readNBytes((int) reply.length().orElseThrow());
                assertArrayEquals(word.getBytes(StandardCharsets.US_ASCII), bytes);
            }
        }
        assertEquals(1, connections.get());
    }

    @Test
    void aConnectionWhoseBodyWasNotReadIsGivenUp() throws IOException {
        answers(ok("much that nobody wants"), ok("never sent"));
        http.send(get("/")).close();
        assertEquals("much that nobody wants", body("/"));
        assertEquals(2, connections.get());
    }

    /** A server may close a connection between two requests at any time (RFC 9112 §9.6). */
    @Test
    void aConnectionThatTheServerClosedMeanwhileIsReplaced() throws Exception {
        answers(ok("one"));
        for (var method : List.of("GET", "PROPFIND", "GET")) {
            var request = new HttpUriRequestBase(method, URI.create("http://127.0.0.1:" + server.getLocalPort() + "/"));
            var answer = http.ask(request, Duration.ofSeconds(20), "the server");
            assertEquals("one", new String(answer.body(), StandardCharsets.US_ASCII));
            Thread.sleep(200); // the server's goodbye is on its way
        }
        assertEquals(3, connections.get());
    }

    @Test
    void aRedirectIsAnAnswerAndNothingMore() throws IOException {
        answers("HTTP/1.1 302 Found\r\nLocation: /elsewhere\r\nContent-Length: 0\r\n\r\n", ok("elsewhere"));
        var request = get("/");
        request.setHeader("Authorization", "Bearer secret");
        assertEquals(
                302, http.ask(request, Duration.ofSeconds(20), "the server").code());
        assertEquals(1, requests.size());
    }

    @Test
    void bytesComeAsTheyAreAndNothingIsAskedToBePacked() throws IOException {
        answers(
                "HTTP/1.1 200 OK\r\nContent-Encoding: gzip\r\nContent-Length: 4\r\nSet-Cookie: a=b\r\n\r\n\u001f\u008b??",
                ok(""));
        try (var reply = http.send(get("/"))) {
            assertArrayEquals(
                    new byte[] {0x1f, (byte) 0x8b, '?', '?'}, reply.body().readNBytes(4));
        }
        assertEquals(200, ask("/").code());
        assertTrue(requests.stream().noneMatch(request -> request.contains("Accept-Encoding")), requests.toString());
        assertTrue(requests.stream().noneMatch(request -> request.contains("Cookie")), requests.toString());
    }

    @Test
    void anAnswerThatIsCutIsALostConnection() {
        answers("HTTP/1.1 200 OK\r\nContent-Length: 1000\r\n\r\nhalf");
        assertThrows(LinkException.Lost.class, () -> ask("/"));
    }

    @Test
    void whatIsNoHttpIsALostConnection() {
        answers("220 mail.example.org ready\r\n");
        assertThrows(LinkException.Lost.class, () -> ask("/"));
    }

    @Test
    void theLengthOfAnAnswerInPiecesIsUnknown() throws IOException {
        answers("HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\n\r\n3\r\nabc\r\n0\r\n\r\n");
        try (var reply = http.send(get("/"))) {
            assertTrue(reply.length().isEmpty());
            assertArrayEquals(
                    "abc".getBytes(StandardCharsets.US_ASCII), reply.body().readAllBytes());
        }
    }

    @Test
    void closingEndsWhatIsUnderWay() throws Exception {
        answers("HTTP/1.1 200 OK\r\nContent-Length: 5\r\n\r\nab", ok(""));
        var reply = http.send(get("/"));
        assertEquals('a', reply.body().read());
        http.close();
        assertThrows(IOException.class, () -> http.send(get("/")));
        reply.close();
    }
}
