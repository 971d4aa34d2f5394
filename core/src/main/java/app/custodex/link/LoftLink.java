package app.custodex.link;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import com.fasterxml.jackson.core.type.TypeReference;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.ByteArrayEntity;

/**
 * One copy in a Loft account. {@code POST sign-in} sends a one-time code to the customer, {@code POST code} takes it and gives a
 * token, {@code GET copies} lists what the account holds; each copy is a tree below {@code copies/ID/files/}. The token lives in
 * memory only.
 */
public final class LoftLink implements PhoneLink {
    private static final Duration ANSWER_TIME = Duration.ofSeconds(5);

    private final String identifier;
    private final String name;
    private final URI address;
    private final HttpConnections http = new HttpConnections();
    private volatile Optional<String> account = Optional.empty();
    private volatile Optional<String> token = Optional.empty();
    private volatile Optional<Chosen> chosen = Optional.empty();

    private record Chosen(LoftCopy copy, DavClient files) {}

    /** @param address where Loft answers, ending in "/" */
    public LoftLink(String identifier, String name, URI address) {
        this.identifier = identifier;
        this.name = name;
        this.address = address;
    }

    private void dress(HttpUriRequestBase request) {
        token.ifPresent(value -> request.setHeader("Authorization", "Bearer " + value));
    }

    private HttpConnections.Answer ask(String path, Optional<Map<String, String>> body) throws LinkException {
        var request = new HttpUriRequestBase(body.isPresent() ? "POST" : "GET", address.resolve(path));
        dress(request);
        try {
            if (body.isPresent()) {
                request.setEntity(
                        new ByteArrayEntity(Json.LINE.writeValueAsBytes(body.get()), ContentType.APPLICATION_JSON));
            }
        } catch (IOException e) {
            throw new IllegalStateException("text can always be written as JSON", e);
        }
        return http.ask(request, ANSWER_TIME, "Loft");
    }

    /** Has a one-time code sent to the account's owner. */
    public void signIn(String newAccount) throws IOException {
        var answer = ask("sign-in", Optional.of(Map.of("account", newAccount)));
        if (answer.code() != 202) {
            throw new ProblemException(Problem.failure(
                    newAccount, "Loft has no such account", "Ask the customer how the account is spelled"));
        }
        account = Optional.of(newAccount);
        token = Optional.empty();
        chosen = Optional.empty();
    }

    /** Hands in the code that the owner received. */
    public void code(String code) throws IOException {
        var answer = ask("code", Optional.of(Map.of("account", account.orElse(""), "code", code.strip())));
        if (answer.code() != 200) {
            if (answer.code() == 429) {
                account = Optional.empty();
            }
            throw new ProblemException(Problem.failure(
                    account.orElse("The account"),
                    "Loft did not accept this code",
                    account.isPresent()
                            ? "Compare it with the customer's message and enter it again"
                            : "It was wrong too often; have a new one sent"));
        }
        token = Optional.of(new String(answer.body(), StandardCharsets.US_ASCII).strip());
    }

    /** What the account holds, the newest first. */
    public List<LoftCopy> copies() throws IOException {
        var answer = ask("copies", Optional.empty());
        if (answer.code() != 200) {
            token = Optional.empty();
            throw new LinkException.NotReady(name);
        }
        return Json.LINE.readValue(answer.body(), new TypeReference<List<LoftCopy>>() {});
    }

    /** Chooses which copy is fetched. */
    public void choose(LoftCopy copy) {
        var tree = address.resolve("copies/" + copy.id() + "/files/");
        chosen = Optional.of(new Chosen(copy, new DavClient(http, tree, this::dress, copy::title)));
    }

    @Override
    public PhoneStatus status() throws LinkException {
        var done = EnumSet.noneOf(ReadinessStep.class);
        var answer = ask("copies", Optional.empty());
        done.add(ReadinessStep.REACH);
        if (answer.code() == 200) {
            done.addAll(List.of(ReadinessStep.SIGN_IN, ReadinessStep.CODE));
            chosen.ifPresent(copy -> done.add(ReadinessStep.CHOOSE_COPY));
        } else if (account.isPresent()) {
            done.add(ReadinessStep.SIGN_IN);
        }
        boolean ready = done.contains(ReadinessStep.CHOOSE_COPY);
        return new PhoneStatus(
                Family.LOFT,
                name,
                done,
                Optional.empty(),
                ready ? chosen.map(this::identity) : Optional.empty(),
                List.of(),
                List.of());
    }

    /** Copies of one account are stacks of their own: each is another phone, or another app. */
    private PhoneIdentity identity(Chosen choice) {
        var copy = choice.copy();
        return new PhoneIdentity(
                identifier + "-" + copy.id(),
                copy.title(),
                copy.family(),
                "Loft copy",
                "",
                "",
                account.orElse(""),
                "",
                ZoneId.of("UTC"),
                copy.bytes(),
                copy.bytes());
    }

    private Chosen chosen() throws LinkException {
        return chosen.orElseThrow(() -> new LinkException.NotReady(name));
    }

    @Override
    public void limit(Limits limits) {
        chosen.ifPresent(copy -> copy.files().limit(limits));
    }

    /** A server on the network is asked at leisure. */
    @Override
    public Duration askEvery() {
        return Duration.ofSeconds(3);
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        return chosen().files().list(folder);
    }

    @Override
    public PhoneContent open(PhonePath file, long offset) throws LinkException {
        return chosen().files().open(file, offset);
    }

    @Override
    public Kind kindOf(PhonePath file) {
        return chosen.map(choice -> Layout.kindOf(choice.copy().family(), file)).orElse(Kind.OTHER);
    }

    /** What lives in the account itself lies there in open files, whose content says what they are. */
    @Override
    public Kind kindOf(PhonePath file, Kind byPlace, byte[] content) {
        return chosen.filter(choice -> choice.copy().family().plain()).isPresent()
                ? Recognition.byContent(file, content)
                : byPlace;
    }

    @Override
    public void close() {
        http.close();
    }
}
