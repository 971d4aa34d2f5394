package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import java.util.regex.Pattern;

/** One plugged-in phone: it answers until it is stopped, and then at once no more. */
final class LinkServer implements AutoCloseable {
    private static final Pattern RANGE = Pattern.compile("bytes=(\\d{1,18})-");

    private final HttpServer server;
    private final ExecutorService workers = Executors.newVirtualThreadPerTaskExecutor();
    private final Path files;
    private final Glass glass;
    private final Brake brake;
    private final Supplier<Facts> facts;

    /** @throws IOException when the port is taken */
    LinkServer(int port, Path files, Glass glass, Brake brake, Supplier<Facts> facts) throws IOException {
        this.files = files;
        this.glass = glass;
        this.brake = brake;
        this.facts = facts;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", this::answer);
        server.setExecutor(workers);
        server.start();
    }

    int port() {
        return server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
        workers.shutdownNow();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            try {
                route(exchange);
            } catch (NoSuchFileException e) {
                refuse(exchange, 404);
            }
        }
    }

    private void route(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().getRawPath();
        var bench = exchange.getRequestHeaders().getFirst("Bench");
        if (bench == null) {
            refuse(exchange, 400);
        } else if (path.equals("/phone")) {
            describe(exchange, bench);
        } else if (path.equals("/pairing")) {
            pair(exchange, bench);
        } else if (path.startsWith("/files/")) {
            files(exchange, bench, path.substring("/files/".length()));
        } else {
            refuse(exchange, 404);
        }
    }

    private void describe(HttpExchange exchange, String bench) throws IOException {
        var now = facts.get();
        boolean known = knows(exchange, bench);
        var status = new PhoneStatus(
                now.family(),
                now.model(),
                glass.done(bench),
                81,
                known ? Optional.of(now.identity()) : Optional.empty(),
                known ? now.contents() : List.of());
        send(exchange, 200, "application/json", Json.LINE.writeValueAsBytes(status));
    }

    private void pair(HttpExchange exchange, String bench) throws IOException {
        var token = glass.token(bench);
        if (token.isEmpty()) {
            refuse(exchange, 423);
        } else {
            send(exchange, 200, "text/plain", token.get().getBytes(StandardCharsets.US_ASCII));
        }
    }

    private boolean knows(HttpExchange exchange, String bench) {
        var given = exchange.getRequestHeaders().getFirst("Authorization");
        return given != null
                && given.startsWith("Bearer ")
                && glass.accepts(bench, given.substring("Bearer ".length()));
    }

    private void files(HttpExchange exchange, String bench, String rawPath) throws IOException {
        if (!knows(exchange, bench)) {
            refuse(exchange, 401);
            return;
        }
        if (!glass.givesFiles()) {
            refuse(exchange, 423);
            return;
        }
        var target = files;
        for (var segment : rawPath.split("/")) {
            if (segment.isEmpty()) {
                continue;
            }
            var name = URLDecoder.decode(segment.replace("+", "%2B"), StandardCharsets.UTF_8);
            if (!PhonePath.isName(name) || Files.isSymbolicLink(target)) {
                refuse(exchange, 404);
                return;
            }
            target = target.resolve(name);
        }
        var attributes = Files.readAttributes(target, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
        switch (exchange.getRequestMethod()) {
            case "PROPFIND" -> {
                exchange.getRequestBody().readAllBytes();
                send(
                        exchange,
                        207,
                        "application/xml; charset=utf-8",
                        Multistatus.of(exchange.getRequestURI().getRawPath(), target));
            }
            case "GET" -> {
                if (attributes.isRegularFile()) {
                    content(exchange, target, attributes);
                } else {
                    refuse(exchange, 403);
                }
            }
            default -> refuse(exchange, 405);
        }
    }

    private void content(HttpExchange exchange, Path file, BasicFileAttributes attributes) throws IOException {
        if (!Files.isReadable(file)) {
            refuse(exchange, 403);
            return;
        }
        long from = 0;
        var range = exchange.getRequestHeaders().getFirst("Range");
        var match = range == null ? null : RANGE.matcher(range);
        if (match != null && match.matches()) {
            from = Math.min(Long.parseLong(match.group(1)), attributes.size());
        }
        exchange.getResponseHeaders().set("ETag", Multistatus.etag(attributes));
        exchange.getResponseHeaders().set("Content-Type", "application/octet-stream");
        long length = attributes.size() - from;
        exchange.sendResponseHeaders(from > 0 ? 206 : 200, length == 0 ? -1 : length);
        if (length > 0) {
            try (var channel = FileChannel.open(file);
                    var out = exchange.getResponseBody()) {
                copy(channel.position(from), out, length);
            }
        }
    }

    private void copy(FileChannel channel, OutputStream out, long length) throws IOException {
        var buffer = ByteBuffer.allocate((int) Math.min(length, 1 << 17));
        for (long left = length; left > 0; ) {
            buffer.clear().limit((int) Math.min(left, buffer.capacity()));
            int n = channel.read(buffer);
            if (n < 0) {
                throw new IOException("the file became shorter");
            }
            brake.pass(n);
            out.write(buffer.array(), 0, n);
            left -= n;
        }
    }

    private static void send(HttpExchange exchange, int code, String type, byte[] body) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(code, body.length);
        exchange.getResponseBody().write(body);
    }

    private static void refuse(HttpExchange exchange, int code) throws IOException {
        exchange.sendResponseHeaders(code, -1);
    }
}
