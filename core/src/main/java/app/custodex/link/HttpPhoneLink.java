package app.custodex.link;

import app.custodex.base.Json;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;

/**
 * A phone that is reached by HTTP in the WebDAV profile: {@code GET phone} describes it, {@code POST pairing} asks for a token,
 * {@code PROPFIND} and {@code GET} below {@code files/} list and read. The token lives in memory only, so a phone asks about the
 * bench once each time that Custodex starts.
 */
public final class HttpPhoneLink implements PhoneLink {
    /** A phone that says nothing about itself for this long is taken for gone. */
    private static final Duration ANSWER_TIME = Duration.ofSeconds(5);

    private final URI address;
    private final HttpConnections http = new HttpConnections();
    private final DavClient files;
    private final String bench = UUID.randomUUID().toString();
    private volatile Optional<String> token = Optional.empty();
    private volatile Optional<PhoneStatus> last = Optional.empty();
    private volatile boolean sealed;

    /** @param address where the phone answers, ending in "/" */
    public HttpPhoneLink(URI address) {
        this.address = address;
        this.files = new DavClient(http, address.resolve("files/"), this::dress, this::subject);
    }

    private void dress(HttpUriRequestBase request) {
        request.setHeader("Bench", bench);
        if (sealed) {
            request.setHeader("Copy", "sealed");
        }
        token.ifPresent(value -> request.setHeader("Authorization", "Bearer " + value));
    }

    private HttpConnections.Answer ask(String method, String path) throws LinkException {
        var request = new HttpUriRequestBase(method, address.resolve(path));
        dress(request);
        return http.ask(request, ANSWER_TIME, subject());
    }

    @Override
    public PhoneStatus status() throws LinkException {
        var status = describe();
        if (status.readiness().ready() && token.isEmpty()) {
            var answer = ask("POST", "pairing");
            if (answer.code() == 200) {
                token = Optional.of(new String(answer.body(), StandardCharsets.US_ASCII).strip());
                status = describe();
            }
        }
        last = Optional.of(status);
        return status;
    }

    private PhoneStatus describe() throws LinkException {
        var answer = ask("GET", "phone");
        if (answer.code() == 401) {
            token = Optional.empty();
        }
        if (answer.code() != 200) {
            throw new LinkException.NotReady(subject());
        }
        try {
            return Json.LINE.readValue(answer.body(), PhoneStatus.class);
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
    public void promise(boolean newSealed) {
        sealed = newSealed;
    }

    @Override
    public void limit(Limits limits) {
        files.limit(limits);
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
    public Kind kindOf(PhonePath file) {
        return last.map(status -> Layout.kindOf(status.family(), file)).orElse(Kind.OTHER);
    }

    @Override
    public void close() {
        http.close();
    }
}
