package app.custodex.link;

import java.net.URI;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.Base64;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;

/**
 * Any WebDAV address (RFC 4918) over TLS. Its certificate is trusted by a person at the first pairing and has to stay the same; the
 * password lives in memory only.
 */
public final class WebDavLink extends PlainLink {
    private static final Duration ANSWER_TIME = Duration.ofSeconds(5);

    private final URI address;
    private final PinnedCertificate certificate;
    private final HttpConnections http;
    private final DavClient files;
    private volatile Optional<Account> account = Optional.empty();
    /** The server has said that it does not know this name with this password: it is not asked a second time with them. */
    private volatile boolean refused;

    private record Account(String user, char[] password) {}

    /**
     * @param address beginning with "https:" and ending in "/"
     * @param trusted the certificate's fingerprint that was accepted earlier: SHA-256 in hexadecimal
     */
    public WebDavLink(String identifier, String name, URI address, Optional<String> trusted) {
        super(Family.WEBDAV, new SourceName(identifier, name));
        this.address = address;
        this.certificate = new PinnedCertificate(trusted);
        this.http = new HttpConnections(Optional.of(certificate.context()));
        this.files = new DavClient(http, address, this::dress, () -> name);
    }

    /** Basic authentication (RFC 7617), which is safe only inside TLS with the right other end; there is no other here. */
    private void dress(HttpUriRequestBase request) {
        account.ifPresent(known -> {
            var pair =
                    StandardCharsets.UTF_8.encode(CharBuffer.wrap(known.user() + ":" + new String(known.password())));
            var encoded = StandardCharsets.ISO_8859_1.decode(Base64.getEncoder().encode(pair));
            request.setHeader("Authorization", "Basic " + encoded);
        });
    }

    /** Of the certificate that the server shows, for a person to compare; empty until it was asked once. */
    public Optional<String> fingerprint() {
        return certificate.seen();
    }

    /** Whether the certificate that the server showed last is the one that was accepted. */
    public boolean trusted() {
        return certificate.accepted();
    }

    /** Accepts the certificate with this fingerprint from now on. */
    public void trust(String fingerprint) {
        certificate.trust(fingerprint);
    }

    /** Copies the password; the caller wipes its own. */
    public void signIn(String user, char[] password) {
        account.ifPresent(before -> Arrays.fill(before.password(), '\0'));
        account = Optional.of(new Account(user, password.clone()));
        refused = false;
    }

    @Override
    public PhoneStatus status() {
        var done = EnumSet.noneOf(ReadinessStep.class);
        if (refused) {
            done.add(ReadinessStep.REACH);
            done.add(ReadinessStep.CERTIFICATE);
            return status(done, address.toString(), 0, 0);
        }
        int code;
        try {
            code = probe();
        } catch (LinkException e) {
            if (certificate.seen().isPresent() && !certificate.accepted()) {
                done.add(ReadinessStep.REACH);
            }
            return status(done, address.toString(), 0, 0);
        }
        done.add(ReadinessStep.REACH);
        done.add(ReadinessStep.CERTIFICATE);
        if (code == 207) {
            done.add(ReadinessStep.SIGN_IN);
        }
        return status(done, address.toString(), 0, 0);
    }

    /** Asks about the root alone. */
    private int probe() throws LinkException {
        var request = new HttpUriRequestBase("PROPFIND", address);
        request.setHeader("Depth", "0");
        dress(request);
        int code = http.ask(request, ANSWER_TIME, name().name()).code();
        noteRefusal(code == 401);
        return code;
    }

    private void noteRefusal(boolean unknown) {
        refused = unknown && account.isPresent();
    }

    private void requireNotRefused() throws LinkException {
        if (refused) {
            throw new LinkException.NotReady(name().name());
        }
    }

    @Override
    public void limit(Limits limits) {
        files.limit(limits);
    }

    /** A server on the network is asked at leisure. */
    @Override
    public Duration askEvery() {
        return Duration.ofSeconds(3);
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        requireNotRefused();
        return files.list(folder);
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        requireNotRefused();
        return files.open(file, offset);
    }

    @Override
    public void close() {
        http.close();
        account.ifPresent(known -> Arrays.fill(known.password(), '\0'));
    }
}
