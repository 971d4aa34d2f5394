package app.custodex.practice;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.Base64;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;

/** A WebDAV server with a certificate of its own making, as a small office has one; it knows one account. */
final class DavOverTls implements AutoCloseable {
    static final String USER = "fenna";
    static final String PASSWORD = "käse & brot";

    private static final String STORE_PASSWORD = "only for this test";

    private final HttpsServer server;
    private final AtomicInteger requests = new AtomicInteger();
    private final FileTree files;

    DavOverTls(Path folder, Path keys, int port) throws Exception {
        files = new FileTree(folder, new Brake());
        server = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.setHttpsConfigurator(new HttpsConfigurator(context(keys)));
        server.createContext("/", this::answer);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
    }

    URI address() {
        return URI.create("https://127.0.0.1:" + server.getAddress().getPort() + "/dav/");
    }

    int port() {
        return server.getAddress().getPort();
    }

    private static SSLContext context(Path keys) throws Exception {
        if (!Files.exists(keys)) {
            var keytool = Path.of(System.getProperty("java.home"), "bin", "keytool");
            var process = new ProcessBuilder(
                            keytool.toString(),
                            "-genkeypair",
                            "-alias",
                            "office",
                            "-keyalg",
                            "EC",
                            "-dname",
                            "CN=Office of nobody",
                            "-validity",
                            "30",
                            "-storetype",
                            "PKCS12",
                            "-storepass",
                            STORE_PASSWORD,
                            "-keystore",
                            keys.toString())
                    .redirectErrorStream(true)
                    .start();
            var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) {
                throw new IOException(said);
            }
        }
        var store = KeyStore.getInstance("PKCS12");
        try (var in = Files.newInputStream(keys)) {
            store.load(in, STORE_PASSWORD.toCharArray());
        }
        var managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(store, STORE_PASSWORD.toCharArray());
        var context = SSLContext.getInstance("TLS");
        context.init(managers.getKeyManagers(), null, null);
        return context;
    }

    /** How often it was asked something. */
    int requests() {
        return requests.get();
    }

    private void answer(HttpExchange exchange) throws IOException {
        requests.incrementAndGet();
        try (exchange) {
            var expected = "Basic "
                    + Base64.getEncoder().encodeToString((USER + ":" + PASSWORD).getBytes(StandardCharsets.UTF_8));
            var path = exchange.getRequestURI().getRawPath();
            if (!expected.equals(exchange.getRequestHeaders().getFirst("Authorization"))) {
                exchange.getResponseHeaders().set("WWW-Authenticate", "Basic realm=\"office\"");
                Answers.refuse(exchange, 401);
            } else if (path.startsWith("/dav/")) {
                files.answer(exchange, path.substring("/dav/".length()), any -> true);
            } else {
                Answers.refuse(exchange, 404);
            }
        } catch (IOException e) {
            // Whoever asked has gone.
        }
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
