package app.custodex.extract;

import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** A form in which things are written into files. Whoever adds one adds it to the list of all, and nowhere else. */
public interface Format {
    /** On the command line, and where it is remembered. */
    String code();

    /** In words, with the standard that it follows. */
    String label();

    /** What it has no place for, to be told where it is chosen; empty when it holds everything. */
    default String leavesOut() {
        return "";
    }

    /** Everything that is written: a whole conversation is written as its messages. */
    Set<KindGroup> ALL = Collections.unmodifiableSet(EnumSet.complementOf(EnumSet.of(KindGroup.CONVERSATIONS)));

    /** What it can hold. */
    Set<KindGroup> groups();

    /** Whether the files of things come out as large as they are. */
    default boolean writesFilesAsTheyAre() {
        return false;
    }

    /** How quickly it is written. */
    default Pace pace(Chosen chosen) {
        return Pace.TEXT;
    }

    /** What it leaves to choose for things of a group. */
    default List<Choice> choices(KindGroup group) {
        return List.of();
    }

    /**
     * Writes all of a batch. What can't be written of one thing is told to the batch, and the rest goes on.
     *
     * @throws IOException when the folder can't be written; what is whole stays there
     * @throws java.util.concurrent.CancellationException when it was stopped
     */
    void write(Batch batch, Chosen chosen, OutFolder out) throws IOException;
}
