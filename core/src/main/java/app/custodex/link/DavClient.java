package app.custodex.link;

import java.io.Closeable;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javax.xml.stream.XMLStreamException;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.StringEntity;

/** Lists and reads a tree over HTTP (RFC 9110) in the WebDAV profile (RFC 4918). */
final class DavClient {
    private static final String ASK = """
            <?xml version="1.0" encoding="utf-8"?>
            <propfind xmlns="DAV:" xmlns:o="urn:custodex:link"><prop><resourcetype/><getcontentlength/><getetag/>\
            <getlastmodified/><o:modified/><o:link-target/></prop></propfind>""";

    private final HttpConnections http;
    private final URI tree;
    private final Consumer<HttpUriRequestBase> dress;
    private final Supplier<String> subject;
    private volatile Limits limits = Limits.USUAL;

    /**
     * @param tree where the root lies, ending in "/"
     * @param dress adds who is asking to each request
     * @param subject what to call the other end in messages
     */
    DavClient(HttpConnections http, URI tree, Consumer<HttpUriRequestBase> dress, Supplier<String> subject) {
        this.http = http;
        this.tree = tree;
        this.dress = dress;
        this.subject = subject;
    }

    void limit(Limits newLimits) {
        limits = newLimits;
    }

    List<Listed> list(PhonePath folder) throws LinkException {
        var request = request("PROPFIND", encoded(folder) + (folder.text().isEmpty() ? "" : "/"));
        request.setHeader("Depth", "1");
        request.setEntity(new StringEntity(ASK, ContentType.create("application/xml", StandardCharsets.UTF_8)));
        try (var reply = send(request, folder.text())) {
            if (reply.code() != 207) {
                throw refusal(reply.code(), folder);
            }
            return DavListing.read(reply.body(), decodedTree(), folder, limits);
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
        var request = request("GET", encoded(file));
        if (offset > 0) {
            request.setHeader("Range", "bytes=" + offset + "-");
        }
        var reply = send(request, file.text());
        int code = reply.code();
        if (code != 200 && (offset == 0 || code != 206)) {
            close(reply);
            throw refusal(code, file);
        }
        if (reply.length().isEmpty()) {
            close(reply);
            throw new LinkException.Item(file, "The server sent no length", "It was left out", null);
        }
        long size = reply.length().getAsLong();
        var body = new Body(reply.body());
        if (offset > 0 && code == 200) {
            skip(body, offset); // a server may answer a range with the whole (RFC 9110 §14.2)
            size -= offset;
        }
        return new PhoneContent(size, reply.header("ETag").orElse(""), body);
    }

    private void skip(InputStream body, long offset) throws LinkException {
        try {
            body.skipNBytes(offset);
        } catch (IOException e) {
            close(body);
            throw new LinkException.Lost(subject.get(), e);
        }
    }

    private HttpUriRequestBase request(String method, String path) {
        var request = new HttpUriRequestBase(method, tree.resolve(path));
        dress.accept(request);
        return request;
    }

    private HttpConnections.Reply send(HttpUriRequestBase request, String what) throws LinkException {
        try {
            return http.send(request);
        } catch (IOException e) {
            throw new LinkException.Lost(what.isEmpty() ? subject.get() : what, e);
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

    private static void close(Closeable answer) {
        try {
            answer.close();
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
