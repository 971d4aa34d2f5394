package app.custodex.extract;

import app.custodex.base.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.IntConsumer;

/** What becomes known while things are written. Used by one thread. */
public final class Report {
    /** Of one sort; a phone full of the same trouble must not fill the memory. */
    private static final int MOST_PROBLEMS = 10_000;

    private final IntConsumer progress;
    private final List<Problem> problems = new ArrayList<>();
    private final Map<String, Integer> leftOut = new TreeMap<>();
    private int written;

    /** @param progress is told how many things are written */
    public Report(IntConsumer progress) {
        this.progress = progress;
    }

    void problem(Problem problem) {
        if (problems.size() < MOST_PROBLEMS) {
            problems.add(problem);
        }
    }

    void leftOut(String what) {
        leftOut.merge(what, 1, Integer::sum);
    }

    void written() {
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
