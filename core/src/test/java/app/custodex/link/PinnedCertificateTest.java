package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.Mockito.withSettings;

import java.security.MessageDigest;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;

class PinnedCertificateTest {
    private static X509Certificate[] chain(String der) throws Exception {
        var certificate = mock(X509Certificate.class, withSettings().stubOnly());
        when(certificate.getEncoded()).thenReturn(der.getBytes(java.nio.charset.StandardCharsets.US_ASCII));
        return new X509Certificate[] {certificate};
    }

    private static String fingerprint(String der) throws Exception {
        return HexFormat.of()
                .formatHex(MessageDigest.getInstance("SHA-256")
                        .digest(der.getBytes(java.nio.charset.StandardCharsets.US_ASCII)));
    }

    /** Connections to the right server go on all the time; not one to the wrong one may slip through beside them. */
    @Test
    void noWrongCertificateSlipsThroughBesideRightOnes() throws Exception {
        var pinned = new PinnedCertificate(Optional.of(fingerprint("right")));
        var right = chain("right");
        var wrong = chain("wrong");
        var jobs = new ArrayList<Callable<Integer>>();
        for (int thread = 0; thread < 4; thread++) {
            boolean good = thread % 2 == 0;
            jobs.add(() -> {
                int accepted = 0;
                for (int i = 0; i < 40_000; i++) {
                    try {
                        pinned.checkServerTrusted(good ? right : wrong, "EC");
                        accepted++;
                    } catch (CertificateException refused) {
                        // as it should be for the wrong one
                    }
                }
                return accepted;
            });
        }
        try (var threads = Executors.newFixedThreadPool(4)) {
            int thread = 0;
            for (var accepted : threads.invokeAll(jobs)) {
                assertEquals(thread++ % 2 == 0 ? 40_000 : 0, accepted.get());
            }
        }
    }

    @Test
    void nothingIsTrustedBeforeAPersonTrustsIt() throws Exception {
        var pinned = new PinnedCertificate(Optional.empty());
        var server = chain("server");
        assertThrows(CertificateException.class, () -> pinned.checkServerTrusted(server, "EC"));
        pinned.trust(fingerprint("server").toUpperCase(java.util.Locale.ROOT));
        pinned.checkServerTrusted(server, "EC");
    }
}
