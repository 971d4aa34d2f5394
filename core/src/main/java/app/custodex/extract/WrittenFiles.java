package app.custodex.extract;

import app.custodex.model.Thing;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/** The files that are complete so far, in order. Whoever wants to know which things are in which file listens here. */
public class WrittenFiles {
    private final List<WrittenFile> files = new ArrayList<>();

    /**
     * A thing is given its form: it is in the file that is being written, or in the next one when there is none.
     *
     * @param said gives the words by which it may be found
     */
    public void thing(Thing thing, Function<Thing, List<String>> said) {
        // nobody listens
    }

    /** A file is begun; those that are begun before it is complete are complete before it. */
    public void begin() {
        // nobody listens
    }

    /** The file that was begun last is complete. */
    public void complete(WrittenFile written) {
        files.add(written);
    }

    /** The file that was begun last is not there. */
    public void fail() {
        // nobody listens
    }

    public List<WrittenFile> all() {
        return List.copyOf(files);
    }
}
