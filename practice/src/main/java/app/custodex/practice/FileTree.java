package app.custodex.practice;

import app.custodex.link.PhonePath;
import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URLDecoder;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.function.Predicate;
import java.util.regex.Pattern;

/** Answers PROPFIND and GET for a folder and what is in it. */
final class FileTree {
    private static final Pattern RANGE = Pattern.compile("bytes=(\\d{1,18})-");

    private final Path root;
    private final Brake brake;

    FileTree(Path root, Brake brake) {
        this.root = root;
        this.brake = brake;
    }

    /**
     * @param rawPath below the root, as it came in the request
     * @param given whether what lies at a path is given out at all
     */
    void answer(HttpExchange exchange, String rawPath, Predicate<PhonePath> given) throws IOException {
        var target = root;
        var path = PhonePath.ROOT;
        for (var segment : rawPath.split("/")) {
            if (segment.isEmpty()) {
                continue;
            }
            var name = URLDecoder.decode(segment.replace("+", "%2B"), StandardCharsets.UTF_8);
            if (!PhonePath.isName(name) || Files.isSymbolicLink(target)) {
                Answers.refuse(exchange, 404);
                return;
            }
            target = target.resolve(name);
            path = path.child(name);
        }
        if (!given.test(path)) {
            Answers.refuse(exchange, 403);
            return;
        }
        var attributes = Files.readAttributes(target, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
        switch (exchange.getRequestMethod()) {
            case "PROPFIND" -> {
                exchange.getRequestBody().readAllBytes();
                Answers.send(
                        exchange,
                        207,
                        "application/xml; charset=utf-8",
                        Multistatus.of(exchange.getRequestURI().getRawPath(), target));
            }
            case "GET" -> {
                if (attributes.isRegularFile()) {
                    content(exchange, target, attributes);
                } else {
                    Answers.refuse(exchange, 403);
                }
            }
            default -> Answers.refuse(exchange, 405);
        }
    }

    private void content(HttpExchange exchange, Path file, BasicFileAttributes attributes) throws IOException {
        if (!Files.isReadable(file)) {
            Answers.refuse(exchange, 403);
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
}
