package app.custodex.app;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.ChatStep;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhoneStatus;
import app.custodex.seal.CustomerKey;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.net.URI;
import java.time.Instant;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** One slot of the bench: a phone, or another source, that is plugged in there, or was. */
public final class Bay {
    private static final Logger LOG = LoggerFactory.getLogger(Bay.class);

    private final Source source;
    private final PhoneLink link;
    private final Set<Kind> keysSeen = EnumSet.noneOf(Kind.class);
    private volatile Optional<PhoneStatus> status = Optional.empty();
    private volatile Instant askedLast = Instant.EPOCH;

    Bay(Source source, PhoneLink link) {
        this.source = source;
        this.link = link;
    }

    /** Counts from 1; the same each time that the program starts. */
    public int number() {
        return source.bay();
    }

    public Source source() {
        return source;
    }

    /** Where it is; a docket is found by it. */
    public URI address() {
        return source.address();
    }

    public PhoneLink link() {
        return link;
    }

    /** What the phone said last; empty while none is plugged in. */
    public Optional<PhoneStatus> status() {
        return status;
    }

    public boolean ready() {
        return status.filter(s -> s.readiness().ready()).isPresent();
    }

    /** Asks the phone how it is, unless it was asked a moment ago. */
    public void askWhenDue(Instant now) {
        if (!now.isBefore(askedLast.plus(link.askEvery()))) {
            askedLast = now;
            ask();
        }
    }

    /** Asks the phone how it is. */
    public void ask() {
        try {
            status = Optional.of(withKeys(link.status()));
        } catch (LinkException e) {
            status = Optional.empty();
        } catch (RuntimeException e) {
            LOG.warn("{} gave an answer that can't be understood", source.name(), e);
            status = Optional.empty();
        }
    }

    /**
     * Tries the customer's key on the copy that an app wrote on the phone. That it opens is noted until the program ends; the key
     * itself is not kept.
     *
     * @throws ProblemException when it does not open the copy
     */
    public void tryKey(Kind app, Passphrase key) throws IOException {
        var family = status().orElseThrow(() -> new LinkException.Lost(source.name(), new IOException("away")))
                .family();
        for (var listed : link.list(Layout.chatCopies(family, app))) {
            if (listed instanceof Listed.File file && file.path().ending().equals(".age")) {
                try (var content = link.open(file.path(), 0)) {
                    requireOpens(app, key, content);
                }
            }
        }
        synchronized (keysSeen) {
            keysSeen.add(app);
        }
        ask();
    }

    private static void requireOpens(Kind app, Passphrase key, PhoneContent content) throws IOException {
        if (!CustomerKey.opens(key, content.stream())) {
            throw new ProblemException(
                    Problem.failure(
                            app.label(),
                            "This key does not open the app's copy",
                            "Ask the customer for the key again; the backup can be made without it, but nobody can read the copy then"));
        }
    }

    private PhoneStatus withKeys(PhoneStatus said) {
        synchronized (keysSeen) {
            return new PhoneStatus(
                    said.family(),
                    said.model(),
                    said.done(),
                    said.battery(),
                    said.identity(),
                    said.contents(),
                    said.apps().stream()
                            .map(app -> keysSeen.contains(app.kind()) ? app.with(ChatStep.CUSTOMER_KEY) : app)
                            .toList());
        }
    }
}
