package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.drawer.PracticeLoft;
import app.custodex.link.LoftCopy;
import com.fasterxml.jackson.core.type.TypeReference;
import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;

/** The simulated Loft: one account with a few copies, a one-time code for each sign-in. */
final class LoftServer implements PracticeLoft, AutoCloseable {
    private static final int TRIES = 3;
    private static final SecureRandom RANDOM = new SecureRandom();

    private final String account;
    private final Path folder;
    private final List<LoftCopy> copies;
    private final Answers server;
    private final Brake brake = new Brake();
    private Optional<String> code = Optional.empty();
    private int tries;
    private Optional<String> token = Optional.empty();

    /**
     * @param port 0 for any
     * @param folder holds a folder for each copy, named by its id
     */
    LoftServer(int port, String account, Path folder, List<LoftCopy> copies) throws IOException {
        this.account = account;
        this.folder = folder;
        this.copies = List.copyOf(copies);
        this.server = new Answers(port, this::answer);
    }

    int port() {
        return server.port();
    }

    @Override
    public URI address() {
        return URI.create("http://127.0.0.1:" + port() + "/");
    }

    @Override
    public String account() {
        return account;
    }

    @Override
    public synchronized Optional<String> message() {
        return code;
    }

    @Override
    public void close() {
        server.close();
    }

    private void answer(HttpExchange exchange) throws IOException {
        var path = exchange.getRequestURI().getRawPath();
        if (path.equals("/sign-in")) {
            Answers.refuse(exchange, signIn(body(exchange)));
        } else if (path.equals("/code")) {
            code(exchange);
        } else if (!knows(exchange)) {
            Answers.refuse(exchange, 401);
        } else if (path.equals("/copies")) {
            Answers.send(exchange, 200, "application/json", Json.LINE.writeValueAsBytes(copies));
        } else {
            copy(exchange, path);
        }
    }

    private static Map<String, String> body(HttpExchange exchange) throws IOException {
        return Json.LINE.readValue(
                exchange.getRequestBody().readNBytes(1 << 12), new TypeReference<Map<String, String>>() {});
    }

    private synchronized int signIn(Map<String, String> asked) {
        if (!account.equals(asked.get("account"))) {
            return 404;
        }
        code = Optional.of("%06d".formatted(RANDOM.nextInt(1_000_000)));
        tries = 0;
        return 202;
    }

    private void code(HttpExchange exchange) throws IOException {
        var given = body(exchange);
        Optional<String> issued = Optional.empty();
        int refusal;
        synchronized (this) {
            boolean right = code.isPresent() && code.equals(Optional.ofNullable(given.get("code")));
            if (right) {
                token = Optional.of(UUID.randomUUID().toString());
                issued = token;
                code = Optional.empty();
            }
            refusal = ++tries >= TRIES ? 429 : 403;
            if (!right && refusal == 429) {
                code = Optional.empty();
            }
        }
        if (issued.isPresent()) {
            Answers.send(exchange, 200, "text/plain", issued.get().getBytes(StandardCharsets.US_ASCII));
        } else {
            Answers.refuse(exchange, refusal);
        }
    }

    private synchronized boolean knows(HttpExchange exchange) {
        var given = exchange.getRequestHeaders().getFirst("Authorization");
        return token.isPresent() && ("Bearer " + token.get()).equals(given);
    }

    private void copy(HttpExchange exchange, String path) throws IOException {
        for (var copy : copies) {
            var start = "/copies/" + copy.id() + "/files/";
            if (path.startsWith(start)) {
                new FileTree(folder.resolve(copy.id()), brake)
                        .answer(exchange, path.substring(start.length()), any -> true);
                return;
            }
        }
        Answers.refuse(exchange, 404);
    }
}
