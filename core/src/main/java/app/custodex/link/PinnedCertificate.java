package app.custodex.link;

import java.net.Socket;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Optional;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;

/**
 * Trusts one certificate, by the SHA-256 of its DER form, once a person has compared and accepted it; nothing before, and no other
 * afterwards. Names and issuers in it prove nothing for a server that lives in a customer's home, so they are not asked.
 */
final class PinnedCertificate extends X509ExtendedTrustManager {
    private volatile Optional<String> trusted;
    private volatile Optional<String> seen = Optional.empty();

    /** @param trusted the fingerprint that was accepted earlier */
    PinnedCertificate(Optional<String> trusted) {
        this.trusted = trusted.map(PinnedCertificate::plain);
    }

    SSLContext context() {
        try {
            var context = SSLContext.getInstance("TLS");
            context.init(null, new TrustManager[] {this}, new SecureRandom());
            return context;
        } catch (GeneralSecurityException e) {
            throw new AssertionError("every Java platform has TLS", e);
        }
    }

    /** Of the certificate that the server showed last; for a person to look at, decides nothing. */
    Optional<String> seen() {
        return seen;
    }

    boolean accepted() {
        return trusted.isPresent() && trusted.equals(seen);
    }

    void trust(String fingerprint) {
        trusted = Optional.of(plain(fingerprint));
    }

    private static String plain(String fingerprint) {
        return fingerprint.replaceAll("[^0-9A-Fa-f]", "").toLowerCase(Locale.ROOT);
    }

    private void check(X509Certificate[] chain) throws CertificateException {
        try {
            var digest = MessageDigest.getInstance("SHA-256").digest(chain[0].getEncoded());
            var shown = Optional.of(HexFormat.of().formatHex(digest));
            seen = shown;
            // Against what this connection showed, never against the field, which another connection may have written
            // meanwhile.
            if (trusted.isEmpty() || !trusted.equals(shown)) {
                throw new CertificateException("nobody has trusted this certificate");
            }
        } catch (CertificateException e) {
            throw e;
        } catch (GeneralSecurityException e) {
            throw new CertificateException(e);
        }
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
        check(chain);
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) throws CertificateException {
        check(chain);
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) throws CertificateException {
        check(chain);
    }

    private static CertificateException noClients() {
        return new CertificateException("this program is no server");
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
        throw noClients();
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) throws CertificateException {
        throw noClients();
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) throws CertificateException {
        throw noClients();
    }

    @Override
    public X509Certificate[] getAcceptedIssuers() {
        return new X509Certificate[0];
    }
}
