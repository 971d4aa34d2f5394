package app.custodex.cli;

/** What the command line answers to a script. */
final class ExitCode {
    static final int DONE = 0;
    /** The task could not be done. */
    static final int FAILED = 1;
    /** The command was not understood; picocli's own code for it. */
    static final int USAGE = 2;
    /** Done, but something is missing or damaged; the output names it. */
    static final int LOSSES = 3;

    private ExitCode() {}
}
