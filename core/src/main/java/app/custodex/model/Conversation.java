package app.custodex.model;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * Messages that belong together.
 *
 * @param service by which they go, such as "SMS"; may be empty
 * @param name that its members gave it; may be empty
 * @param members its owner excepted; those who left too
 */
public record Conversation(ThingId id, String account, String service, String name, boolean group, List<Party> members)
        implements Thing {
    public Conversation {
        members = List.copyOf(members);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.CONVERSATION;
    }

    @Override
    public List<Party> people() {
        return members;
    }

    @Override
    public String title() {
        return name.isBlank() ? members.stream().map(Party::title).collect(Collectors.joining(", ")) : name;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(name);
    }
}
