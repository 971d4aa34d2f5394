package app.custodex.link;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A chat app on a phone, and how far it is with writing a copy of its conversations there. None of its steps keeps the rest of a
 * backup waiting.
 *
 * @param kind which app's conversations
 * @param done the steps that are done on the phone
 */
public record ChatApp(Kind kind, Set<ChatStep> done) {
    public ChatApp {
        done = Set.copyOf(done);
    }

    /** In the order of doing them. */
    public List<ChatStep> steps() {
        return kind == Kind.BURROW
                ? List.of(ChatStep.COPY_HERE, ChatStep.WRITE_COPY, ChatStep.CUSTOMER_KEY)
                : List.of(ChatStep.COPY_HERE, ChatStep.WRITE_COPY);
    }

    public Optional<ChatStep> next() {
        return steps().stream().filter(step -> !done.contains(step)).findFirst();
    }

    /** Whether its copy lies on the phone, so that a backup takes it. */
    public boolean written() {
        return done.contains(ChatStep.WRITE_COPY);
    }

    public ChatApp with(ChatStep step) {
        var more = new HashSet<>(done);
        more.add(step);
        return new ChatApp(kind, more);
    }
}
