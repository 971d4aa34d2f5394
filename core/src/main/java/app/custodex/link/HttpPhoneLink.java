package app.custodex.link;

import app.custodex.base.Json;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Executors;
import javax.xml.stream.XMLStreamException;

/**
 * A phone that is reached by HTTP (RFC 9110) in the WebDAV profile (RFC 4918): {@code GET phone} describes it,
 * {@code POST pairing} asks for a token, {@code PROPFIND} and {@code GET} below {@code files/} list and read. The token
 * lives in memory only, so a phone asks about the bench once each time that Custodex starts.
 */
public final class HttpPhoneLink implements PhoneLink {
    /** A phone that says nothing for this long is taken for gone. */
    private static final Duration ANSWER_TIME = Duration.ofSeconds(20);

    private static final HttpRequest.BodyPublisher ASK = HttpRequest.BodyPublishers.ofString("""
            <?xml version="1.0" encoding="utf-8"?>
            <propfind xmlns="DAV:" xmlns:o="urn:custodex:link"><prop><resourcetype/><getcontentlength/><getetag/>\
            <getlastmodified/><o:modified/><o:link-target/></prop></propfind>""");

    private final URI address;
    private final HttpClient http;
    private final String bench = UUID.randomUUID().toString();
    private volatile Optional<String> token = Optional.empty();
    private volatile Optional<PhoneStatus> last = Optional.empty();

    /** @param address where the phone answers, ending in "/" */
    public HttpPhoneLink(URI address) {
        this.address = address;
        this.http = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(Duration.ofSeconds(5))
                .executor(Executors.newVirtualThreadPerTaskExecutor())
                .build();
    }

    public URI address() {
        return address;
    }

    @Override
    public PhoneStatus status() throws LinkException {
        var status = describe();
        if (status.readiness().ready() && token.isEmpty()) {
            var response = send(request("pairing").POST(HttpRequest.BodyPublishers.noBody()), "pairing");
            if (response.statusCode() == 200) {
                token = Optional.of(new String(bytes(response, "pairing"), StandardCharsets.US_ASCII).strip());
                status = describe();
            } else {
                close(response.body());
            }
        }
        last = Optional.of(status);
        return status;
    }

    private PhoneStatus describe() throws LinkException {
        var response = send(request("phone").GET(), "phone");
        var body = bytes(response, "phone");
        if (response.statusCode() == 401) {
            token = Optional.empty();
        }
        if (response.statusCode() != 200) {
            throw new LinkException.NotReady(subject());
        }
        try {
            return Json.LINE.readValue(body, PhoneStatus.class);
        } catch (IOException e) {
            throw new LinkException.Lost(subject(), e);
        }
    }

    private String subject() {
        return last.flatMap(PhoneStatus::identity)
                .map(PhoneIdentity::name)
                .orElse("The phone at " + address.getAuthority());
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        var response = send(
                request("files/" + encoded(folder) + (folder.text().isEmpty() ? "" : "/"))
                        .header("Depth", "1")
                        .header("Content-Type", "application/xml; charset=utf-8")
                        .method("PROPFIND", ASK),
                folder.text());
        try (var body = response.body()) {
            if (response.statusCode() != 207) {
                throw refusal(response.statusCode(), folder);
            }
            return DavListing.read(body, address.getPath() + "files/", folder);
        } catch (XMLStreamException e) {
            if (e.getNestedException() instanceof IOException) {
                throw new LinkException.Lost(subject(), e);
            }
            throw new LinkException.Item(
                    folder,
                    "The phone's list of this folder can't be read",
                    "Try again; what is in it was not copied",
                    e);
        } catch (LinkException e) {
            throw e;
        } catch (IOException e) {
            throw new LinkException.Lost(subject(), e);
        }
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        var request = request("files/" + encoded(file)).GET();
        if (offset > 0) {
            request.header("Range", "bytes=" + offset + "-");
        }
        var response = send(request, file.text());
        if (response.statusCode() != (offset > 0 ? 206 : 200)) {
            close(response.body());
            throw refusal(response.statusCode(), file);
        }
        long size = response.headers().firstValueAsLong("Content-Length").orElse(-1);
        if (size < 0) {
            close(response.body());
            throw new LinkException.Item(file, "The phone doesn't say how long this file is", "It was left out", null);
        }
        return new PhoneContent(size, response.headers().firstValue("ETag").orElse(""), new Body(response.body()));
    }

    @Override
    public Kind kindOf(PhonePath file) {
        return last.map(status -> Layout.kindOf(status.family(), file)).orElse(Kind.OTHER);
    }

    private HttpRequest.Builder request(String path) {
        var builder = HttpRequest.newBuilder(address.resolve(path))
                .timeout(ANSWER_TIME)
                .header("Bench", bench);
        token.ifPresent(value -> builder.header("Authorization", "Bearer " + value));
        return builder;
    }

    private HttpResponse<InputStream> send(HttpRequest.Builder request, String what) throws LinkException {
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
        } catch (IOException e) {
            throw new LinkException.Lost(what.equals("phone") || what.equals("pairing") ? subject() : what, e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new LinkException.Lost(subject(), e);
        }
    }

    private byte[] bytes(HttpResponse<InputStream> response, String what) throws LinkException {
        try (var body = response.body()) {
            return body.readNBytes(1 << 20);
        } catch (IOException e) {
            throw new LinkException.Lost(what, e);
        }
    }

    private LinkException refusal(int code, PhonePath path) {
        return switch (code) {
            case 401, 423 -> new LinkException.NotReady(subject());
            case 403 ->
                new LinkException.Item(
                        path, "The phone keeps this to itself", "Its owner has to open it on the phone", null);
            case 404, 410 ->
                new LinkException.Item(path, "It is no longer on the phone", "It was deleted while the copy ran", null);
            default ->
                new LinkException.Item(
                        path,
                        "The phone can't read it (answer " + code + ")",
                        "Try again; restart the phone if it stays so",
                        null);
        };
    }

    private static String encoded(PhonePath path) {
        var segments = new ArrayList<String>();
        for (var segment : path.text().split("/")) {
            segments.add(URLEncoder.encode(segment, StandardCharsets.UTF_8).replace("+", "%20"));
        }
        return String.join("/", segments);
    }

    private static void close(InputStream body) {
        try {
            body.close();
        } catch (IOException e) {
            // The answer is not wanted; that the phone hung up meanwhile shows at the next request.
        }
    }

    @Override
    public void close() {
        http.shutdownNow();
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
                throw new LinkException.Lost(subject(), e);
            }
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            try {
                return super.read(buffer, offset, length);
            } catch (IOException e) {
                throw new LinkException.Lost(subject(), e);
            }
        }
    }
}
