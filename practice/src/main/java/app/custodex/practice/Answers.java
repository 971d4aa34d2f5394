package app.custodex.practice;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.NoSuchFileException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;

/** What the simulated servers have in common: a port on loopback, and short answers. */
final class Answers implements AutoCloseable {
    private final HttpServer server;
    private final ExecutorService workers = Executors.newVirtualThreadPerTaskExecutor();

    /** Answers one request. */
    interface Route {
        void answer(HttpExchange exchange) throws IOException;
    }

    /**
     * @param port 0 for any
     * @throws IOException when the port is taken
     */
    Answers(int port, Route route) throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", exchange -> {
            try (exchange) {
                try {
                    route.answer(exchange);
                } catch (NoSuchFileException e) {
                    refuse(exchange, 404);
                }
            }
        });
        server.setExecutor(workers);
        server.start();
    }

    int port() {
        return server.getAddress().getPort();
    }

    /** Breaks every connection at once, in the middle of an answer too. */
    @Override
    public void close() {
        server.stop(0);
        workers.shutdownNow();
    }

    static void send(HttpExchange exchange, int code, String type, byte[] body) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(code, body.length);
        exchange.getResponseBody().write(body);
    }

    static void refuse(HttpExchange exchange, int code) throws IOException {
        exchange.sendResponseHeaders(code, -1);
    }
}
