package app.custodex.base;

import java.io.IOException;

/** A task ended because of a problem that a person can read and act on. */
public class ProblemException extends IOException {
    private static final long serialVersionUID = 1L;

    private final transient Problem problem;

    public ProblemException(Problem problem) {
        super(problem.sentence());
        this.problem = problem;
    }

    public ProblemException(Problem problem, Throwable cause) {
        super(problem.sentence(), cause);
        this.problem = problem;
    }

    public Problem problem() {
        return problem;
    }
}
