package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.readers.PhoneDatabase.Outcome;

/** Tells once for each table what could not be read of it. */
public final class Losses {
    private static final String ADVICE = "What could be read is shown; look into an older layer for the rest";

    private final String store;
    private final Sink sink;

    /** @param store what the tables lie in */
    public Losses(String store, Sink sink) {
        this.store = store;
        this.sink = sink;
    }

    /**
     * @param what the rows are to their owner, such as "messages"
     * @return whether there is such a table
     */
    public boolean tell(String what, Outcome outcome) {
        if (outcome.lost() > 0) {
            sink.problem(Problem.loss(
                    store,
                    outcome.rows() == 0
                            ? "Its " + what + " could not be read"
                            : "Part of its " + what + " could not be read; " + outcome.rows() + " could",
                    ADVICE));
        }
        return outcome.there();
    }

    /** A table that has to be there. */
    public void require(String what, Outcome outcome) {
        if (!tell(what, outcome)) {
            sink.problem(Problem.loss(store, "Its " + what + " are not where this system keeps them", ADVICE));
        }
    }

    /** Tells of a database that is not whole, whatever of it can be read. */
    public void tellDamage(PhoneDatabase database) {
        if (database.logTorn()) {
            sink.problem(Problem.loss(
                    store,
                    "The log beside it, which holds the newest changes, is torn; some of them may be missing",
                    ADVICE));
        }
        if (database.cut()) {
            sink.problem(Problem.loss(store, "The file ends before the end that it promises", ADVICE));
        } else if (database.damaged()) {
            sink.problem(Problem.loss(store, "Parts of the database are damaged; something may be missing", ADVICE));
        }
    }
}
