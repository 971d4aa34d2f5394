package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/** One plugged-in phone: it answers until it is stopped, and then at once no more. */
final class LinkServer implements AutoCloseable {
    private final Answers server;
    private final FileTree files;
    private final Glass glass;
    private final Supplier<Facts> facts;

    /** @throws IOException when the port is taken */
    LinkServer(int port, Path files, Glass glass, Brake brake, Supplier<Facts> facts) throws IOException {
        this.files = new FileTree(files, brake);
        this.glass = glass;
        this.facts = facts;
        server = new Answers(port, this::answer);
    }

    int port() {
        return server.port();
    }

    @Override
    public void close() {
        server.close();
    }

    private void answer(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().getRawPath();
        var bench = exchange.getRequestHeaders().getFirst("Bench");
        if (bench == null) {
            Answers.refuse(exchange, 400);
        } else if (path.equals("/phone")) {
            describe(exchange, bench);
        } else if (path.equals("/pairing")) {
            pair(exchange, bench);
        } else if (path.startsWith("/files/")) {
            files(exchange, bench, path.substring("/files/".length()));
        } else {
            Answers.refuse(exchange, 404);
        }
    }

    private void describe(HttpExchange exchange, String bench) throws IOException {
        var now = facts.get();
        boolean known = knows(exchange, bench);
        var status = new PhoneStatus(
                now.phone().family(),
                now.phone().model(),
                glass.done(bench),
                Optional.of(81),
                known ? Optional.of(now.identity()) : Optional.empty(),
                known ? contents(now) : List.of(),
                known ? glass.chats() : List.of());
        Answers.send(exchange, 200, "application/json", Json.LINE.writeValueAsBytes(status));
    }

    private List<KindCount> contents(Facts now) {
        return now.contents().stream()
                .map(count -> new KindCount(
                        count.kind(), count.items(), count.files(), count.bytes(), glass.withheld(count.kind())))
                .toList();
    }

    private void pair(HttpExchange exchange, String bench) throws IOException {
        var token = glass.token(bench);
        if (token.isEmpty()) {
            Answers.refuse(exchange, 423);
        } else {
            Answers.send(exchange, 200, "text/plain", token.get().getBytes(StandardCharsets.US_ASCII));
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
            Answers.refuse(exchange, 401);
            return;
        }
        if (!glass.givesFiles()) {
            Answers.refuse(exchange, 423);
            return;
        }
        boolean sealed = "sealed".equals(exchange.getRequestHeaders().getFirst("Copy"));
        files.answer(exchange, rawPath, path -> given(path, sealed));
    }

    private boolean given(PhonePath path, boolean sealed) {
        Kind kind = Layout.kindOf(facts.get().phone().family(), path);
        return new KindCount(kind, 0, 0, 0, glass.withheld(kind)).given(sealed);
    }
}
