package app.custodex.link;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javax.xml.stream.XMLStreamException;

/** Lists and reads a tree over HTTP (RFC 9110) in the WebDAV profile (RFC 4918). */
final class DavClient {
    /** A stall is told long before this; then the request is given up. */
    private static final Duration ANSWER_TIME = Duration.ofSeconds(60);

    private static final long LONGEST_ANSWER = 1 << 20;

    private static final HttpRequest.BodyPublisher ASK = HttpRequest.BodyPublishers.ofString("""
            <?xml version="1.0" encoding="utf-8"?>
            <propfind xmlns="DAV:" xmlns:o="urn:custodex:link"><prop><resourcetype/><getcontentlength/><getetag/>\
            <getlastmodified/><o:modified/><o:link-target/></prop></propfind>""");

    private final HttpClient http;
    private final URI tree;
    private final Consumer<HttpRequest.Builder> dress;
    private final Supplier<String> subject;
    private volatile Limits limits = Limits.USUAL;

    /**
     * @param tree where the root lies, ending in "/"
     * @param dress adds who is asking to each request
     * @param subject what to call the other end in messages
     */
    DavClient(HttpClient http, URI tree, Consumer<HttpRequest.Builder> dress, Supplier<String> subject) {
        this.http = http;
        this.tree = tree;
        this.dress = dress;
        this.subject = subject;
    }

    void limit(Limits newLimits) {
        limits = newLimits;
    }

    List<Listed> list(PhonePath folder) throws LinkException {
        var response = send(
                request(encoded(folder) + (folder.text().isEmpty() ? "" : "/"))
                        .header("Depth", "1")
                        .header("Content-Type", "application/xml; charset=utf-8")
                        .method("PROPFIND", ASK),
                folder.text());
        try (var body = response.body()) {
            if (response.statusCode() != 207) {
                throw refusal(response.statusCode(), folder);
            }
            return DavListing.read(body, decodedTree(), folder, limits);
        } catch (XMLStreamException e) {
            if (e.getNestedException() instanceof IOException) {
                throw new LinkException.Lost(subject.get(), e);
            }
            throw new LinkException.Item(
                    folder,
                    "The phone's list of this folder can't be read",
                    "Try again; what is in it was not copied",
                    e);
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException.Lost(subject.get(), e);
        }
    }

    private String decodedTree() {
        return Arrays.stream(tree.getRawPath().split("/", -1))
                .map(RawName::decoded)
                .collect(Collectors.joining("/"));
    }

    PhoneContent open(PhonePath file, long offset) throws LinkException {
        var request = request(encoded(file)).GET();
        if (offset > 0) {
            request.header("Range", "bytes=" + offset + "-");
        }
        var response = send(request, file.text());
        int code = response.statusCode();
        if (code != 200 && (offset == 0 || code != 206)) {
            close(response.body());
            throw refusal(code, file);
        }
        long size = response.headers().firstValueAsLong("Content-Length").orElse(-1);
        if (size < 0) {
            close(response.body());
            throw new LinkException.Item(file, "The server sent no length", "It was left out", null);
        }
        var body = new Body(response.body());
        if (offset > 0 && code == 200) {
            skip(body, offset); // a server may answer a range with the whole (RFC 9110 §14.2)
            size -= offset;
        }
        return new PhoneContent(size, response.headers().firstValue("ETag").orElse(""), body);
    }

    private void skip(InputStream body, long offset) throws LinkException {
        try {
            body.skipNBytes(offset);
        } catch (IOException e) {
            close(body);
            throw new LinkException.Lost(subject.get(), e);
        }
    }

    private HttpRequest.Builder request(String path) {
        var builder = HttpRequest.newBuilder(tree.resolve(path)).timeout(ANSWER_TIME);
        dress.accept(builder);
        return builder;
    }

    private HttpResponse<InputStream> send(HttpRequest.Builder request, String what) throws LinkException {
        var subjectOfIt = what.isEmpty() ? subject.get() : what;
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
        } catch (IOException e) {
            throw new LinkException.Lost(subjectOfIt, e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException.Lost(subjectOfIt, e);
        }
    }

    /** A short answer, read to its end. */
    record Answer(int code, byte[] body) {}

    /**
     * Asks something that has a short answer. No answer, half an answer and one that is too long within the time are a lost
     * connection, so a server that falls silent in the midst of it holds nobody up.
     */
    static Answer ask(HttpClient http, HttpRequest.Builder request, Duration within, String subject)
            throws LinkException {
        var body = HttpResponse.BodyHandlers.limiting(HttpResponse.BodyHandlers.ofByteArray(), LONGEST_ANSWER);
        var asked = http.sendAsync(request.build(), body);
        try {
            var response = asked.get(within.toMillis(), TimeUnit.MILLISECONDS);
            return new Answer(response.statusCode(), response.body());
        } catch (ExecutionException | TimeoutException e) {
            asked.cancel(true);
            throw new LinkException.Lost(subject, e);
        } catch (InterruptedException e) {
            asked.cancel(true);
            Thread.currentThread().interrupt();
            throw new LinkException.Lost(subject, e);
        }
    }

    private LinkException refusal(int code, PhonePath path) {
        return switch (code) {
            case 401, 423 -> new LinkException.NotReady(subject.get());
            case 403 ->
                new LinkException.Item(path, "It is not given out", "Its owner has to open it at the source", null);
            case 404, 410 ->
                new LinkException.Item(path, "It is no longer there", "It was deleted while the copy ran", null);
            default ->
                new LinkException.Item(
                        path,
                        "It can't be read there (answer " + code + ")",
                        "Try again; restart the phone or the server if it stays so",
                        null);
        };
    }

    private static String encoded(PhonePath path) {
        return "./"
                + Arrays.stream(path.text().split("/")).map(RawName::encoded).collect(Collectors.joining("/"));
    }

    private static void close(InputStream body) {
        try {
            body.close();
        } catch (IOException e) {
            // The answer is not wanted; that the other end hung up meanwhile shows at the next request.
        }
    }

    /** Tells a broken connection from every other failure to read. */
    private final class Body extends FilterInputStream {
        Body(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            try {
                return super.read();
            } catch (IOException e) {
                throw new LinkException.Lost(subject.get(), e);
            }
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            try {
                return super.read(buffer, offset, length);
            } catch (IOException e) {
                throw new LinkException.Lost(subject.get(), e);
            }
        }
    }
}
