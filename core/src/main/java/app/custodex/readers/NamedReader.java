package app.custodex.readers;

import app.custodex.model.ThingKind;
import java.util.Set;

/** What all readers have: a name, and the kinds that they read. */
public abstract class NamedReader implements Reader {
    private final String name;
    private final Set<ThingKind> kinds;

    protected NamedReader(String name, Set<ThingKind> kinds) {
        this.name = name;
        this.kinds = Set.copyOf(kinds);
    }

    @Override
    public final String name() {
        return name;
    }

    @Override
    public final Set<ThingKind> kinds() {
        return kinds;
    }
}
