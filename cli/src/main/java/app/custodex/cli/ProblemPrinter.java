package app.custodex.cli;

import app.custodex.base.ProblemException;
import app.custodex.base.WriteRefused;
import java.nio.file.FileSystemException;
import picocli.CommandLine;
import picocli.CommandLine.IExecutionExceptionHandler;
import picocli.CommandLine.ParseResult;

/** Says what went wrong in one sentence; the stack goes to the log only. */
final class ProblemPrinter implements IExecutionExceptionHandler {
    @Override
    public int handleExecutionException(Exception e, CommandLine command, ParseResult parsed) {
        if (e instanceof ProblemException problem) {
            command.getErr().println(problem.problem().sentence());
        } else if (e instanceof FileSystemException refused && WriteRefused.is(refused)) {
            command.getErr()
                    .println(
                            Output.oneLine(refused.getFile())
                                    + ": It can't be written. Its disk is read-only, or this user may not write there; nothing was changed.");
        } else {
            command.getErr()
                    .println(
                            "Something unexpected happened. Nothing that was saved is lost. Try again; if it happens twice,"
                                    + " report it with what CUSTODEX_LOG=DEBUG writes.");
            org.slf4j.LoggerFactory.getLogger(ProblemPrinter.class).error("command failed", e);
        }
        return ExitCode.FAILED;
    }
}
