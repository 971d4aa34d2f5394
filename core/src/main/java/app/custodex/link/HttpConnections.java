package app.custodex.link;

import java.io.Closeable;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLContext;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.DefaultHttpRequestRetryStrategy;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManager;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.client5.http.ssl.DefaultClientTlsStrategy;
import org.apache.hc.client5.http.ssl.NoopHostnameVerifier;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.HttpRequest;
import org.apache.hc.core5.http.HttpResponse;
import org.apache.hc.core5.http.protocol.HttpContext;
import org.apache.hc.core5.io.CloseMode;
import org.apache.hc.core5.util.TimeValue;
import org.apache.hc.core5.util.Timeout;

/** The connections to one server, by HTTP/1.1 (RFC 9112). Redirects are not followed: what is sent with a request goes nowhere else. */
final class HttpConnections implements Closeable {
    private static final Timeout CONNECT_TIME = Timeout.ofSeconds(5);

    /** A stall is told long before this; then the request is given up. */
    private static final Timeout ANSWER_TIME = Timeout.ofSeconds(60);

    private static final int AT_ONCE = 64;
    private static final int LONGEST_ANSWER = 1 << 20;

    private final CloseableHttpClient http;

    HttpConnections() {
        this(Optional.empty());
    }

    /** @param tls decides alone which server is trusted: the name in a certificate is not looked at */
    HttpConnections(Optional<SSLContext> tls) {
        var connections = PoolingHttpClientConnectionManagerBuilder.create()
                .setMaxConnTotal(AT_ONCE)
                .setMaxConnPerRoute(AT_ONCE)
                .setDefaultConnectionConfig(ConnectionConfig.custom()
                        .setConnectTimeout(CONNECT_TIME)
                        .setSocketTimeout(ANSWER_TIME)
                        .build());
        tls.ifPresent(context ->
                connections.setTlsSocketStrategy(new DefaultClientTlsStrategy(context, NoopHostnameVerifier.INSTANCE)));
        var manager = connections.build();
        http = HttpClients.custom()
                .setConnectionManager(manager)
                .setDefaultRequestConfig(RequestConfig.custom()
                        .setResponseTimeout(ANSWER_TIME)
                        .setConnectionRequestTimeout(ANSWER_TIME)
                        .build())
                .setRetryStrategy(new OnceMore(manager))
                .disableRedirectHandling()
                .disableContentCompression()
                .disableCookieManagement()
                .disableAuthCaching()
                .build();
    }

    /** A connection that was kept may have died meanwhile: then all that were kept are dropped, and it is asked once more. */
    private static final class OnceMore extends DefaultHttpRequestRetryStrategy {
        private final PoolingHttpClientConnectionManager kept;

        OnceMore(PoolingHttpClientConnectionManager kept) {
            super(1, TimeValue.ZERO_MILLISECONDS);
            this.kept = kept;
        }

        @Override
        public boolean retryRequest(HttpRequest request, IOException trouble, int times, HttpContext context) {
            boolean again = super.retryRequest(request, trouble, times, context);
            if (again) {
                kept.closeIdle(TimeValue.ZERO_MILLISECONDS);
            }
            return again;
        }

        /** An answer is an answer, also one that says that the server is busy. */
        @Override
        public boolean retryRequest(HttpResponse response, int times, HttpContext context) {
            return false;
        }

        /** RFC 4918 §9.1 */
        @Override
        protected boolean handleAsIdempotent(HttpRequest request) {
            return request.getMethod().equals("PROPFIND") || super.handleAsIdempotent(request);
        }
    }

    /**
     * An answer whose body is still to be read. Closing it never waits, also while another thread reads the body: what was not read
     * is given up with its connection.
     */
    static final class Reply implements Closeable {
        private final HttpUriRequestBase request;
        private final ClassicHttpResponse response;
        private final Body body;

        private Reply(HttpUriRequestBase request, ClassicHttpResponse response) throws IOException {
            this.request = request;
            this.response = response;
            var entity = response.getEntity();
            this.body = entity == null
                    ? new Body(InputStream.nullInputStream(), 0)
                    : new Body(entity.getContent(), entity.getContentLength());
        }

        int code() {
            return response.getCode();
        }

        Optional<String> header(String name) {
            return Optional.ofNullable(response.getFirstHeader(name)).map(header -> header.getValue());
        }

        /** Bytes of the body, if the server says so. */
        OptionalLong length() {
            return body.length < 0 ? OptionalLong.empty() : OptionalLong.of(body.length);
        }

        /** Closing it closes the answer. */
        InputStream body() {
            return body;
        }

        @Override
        public void close() throws IOException {
            body.close();
        }

        private final class Body extends FilterInputStream {
            private final long length;
            private volatile long read;
            private volatile boolean ended;

            Body(InputStream in, long length) {
                super(in);
                this.length = length;
                this.ended = length == 0;
            }

            @Override
            public int read() throws IOException {
                var one = new byte[1];
                return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
            }

            @Override
            public int read(byte[] buffer, int offset, int count) throws IOException {
                int n = in.read(buffer, offset, count);
                read += Math.max(n, 0);
                ended = n < 0 || read == length;
                return n;
            }

            @Override
            public void close() throws IOException {
                if (ended) {
                    in.close(); // the connection serves the next request
                } else {
                    request.cancel();
                }
            }
        }
    }

    /** Sends a request; the caller closes the answer. */
    Reply send(HttpUriRequestBase request) throws IOException {
        try {
            return new Reply(request, http.executeOpen(null, request, null));
        } catch (IllegalStateException e) { // closed meanwhile
            throw new IOException(e);
        }
    }

    /** A short answer, read to its end. */
    record Answer(int code, byte[] body) {}

    /**
     * Asks something that has a short answer. No answer, half an answer and one that is too long within the time are a lost
     * connection, so a server that falls silent in the midst of it holds nobody up.
     *
     * @param subject what to call the other end in messages
     */
    Answer ask(HttpUriRequestBase request, Duration within, String subject) throws LinkException {
        var asked = new FutureTask<>(() -> {
            try (var reply = send(request)) {
                var body = reply.body().readNBytes(LONGEST_ANSWER + 1);
                if (body.length > LONGEST_ANSWER) {
                    throw new IOException("an answer of more than " + LONGEST_ANSWER + " bytes");
                }
                return new Answer(reply.code(), body);
            }
        });
        Thread.ofVirtual().name("short-answer").start(asked);
        try {
            return asked.get(within.toMillis(), TimeUnit.MILLISECONDS);
        } catch (ExecutionException e) {
            throw new LinkException.Lost(subject, e);
        } catch (TimeoutException e) {
            request.cancel();
            throw new LinkException.Lost(subject, e);
        } catch (InterruptedException e) {
            request.cancel();
            Thread.currentThread().interrupt();
            throw new LinkException.Lost(subject, e);
        }
    }

    /** Ends every request under way. */
    @Override
    public void close() {
        http.close(CloseMode.IMMEDIATE);
    }
}
