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
