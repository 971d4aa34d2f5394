package app.custodex.extract;

import app.custodex.base.Problem;
import app.custodex.model.Thing;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.IntConsumer;

/** What becomes known while things are written. Used by one thread. */
public final class Report {
    /** Of one sort; a phone full of the same trouble must not fill the memory. */
    private static final int MOST_PROBLEMS = 10_000;

    private final IntConsumer progress;
    private final List<Problem> problems = new ArrayList<>();
    private final Map<String, Integer> leftOut = new TreeMap<>();
    private int written;

    private final Things things;
    private final Optional<Report> whole;
    private final List<Copy> copies = new ArrayList<>();

    /**
     * A file that was written as it is.
     *
     * @param digest of its item by the records of the layer
     */
    private record Copy(String item, String digest, WrittenFile written) {}

    /** @param progress is told how many things are written */
    public Report(IntConsumer progress) {
        this(progress, (thing, said) -> {});
    }

    /** Takes things. */
    public interface Things {
        /** @param said gives the words by which it may be found */
        void written(Thing thing, Function<Thing, List<String>> said);
    }

    /** @param things is told each of them before it is written */
    public Report(IntConsumer progress, Things things) {
        this(progress, things, Optional.empty());
    }

    private Report(IntConsumer progress, Things things, Optional<Report> whole) {
        this.progress = progress;
        this.things = things;
        this.whole = whole;
    }

    /** Of a part of what is written; this one is told all of it too. */
    Report part() {
        return new Report(done -> {}, (thing, said) -> {}, Optional.of(this));
    }

    void problem(Problem problem) {
        whole.ifPresent(report -> report.problem(problem));
        if (problems.size() < MOST_PROBLEMS) {
            problems.add(problem);
        }
    }

    void leftOut(String what, int count) {
        if (count > 0) {
            whole.ifPresent(report -> report.leftOut(what, count));
            leftOut.merge(what, count, Integer::sum);
        }
    }

    /** A file was written as it is; whether it is what the layer saved is found out in the end, when its digest is known. */
    void copied(String item, String digest, WrittenFile written) {
        whole.ifPresentOrElse(
                report -> report.copied(item, digest, written), () -> copies.add(new Copy(item, digest, written)));
    }

    /** Tells which of the files that were written as they are differ from what the layer saved. */
    void compareCopies() {
        copies.stream()
                .filter(copy -> !copy.written().sha512().equals(copy.digest()))
                .forEach(copy -> problem(differs(copy.item())));
    }

    /** What is told about an item that is not what the layer saved. */
    static Problem differs(String item) {
        return Problem.loss(
                item,
                "It is not what was saved: its digest is another one",
                "Check the layer; do not rely on this item");
    }

    void written(Thing thing, Function<Thing, List<String>> said) {
        whole.ifPresent(report -> report.written(thing, said));
        things.written(thing, said);
        progress.accept(++written);
    }

    int count() {
        return written;
    }

    List<Problem> problems() {
        return problems;
    }

    /** A line each. */
    List<String> leftOut() {
        return leftOut.entrySet().stream()
                .map(entry -> entry.getKey() + ": " + entry.getValue())
                .toList();
    }
}
