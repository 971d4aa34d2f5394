package app.custodex.desktop.ui;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import javafx.application.Platform;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Does things off the interface thread and comes back to it; the one place that does. */
public final class Work {
    private static final Logger LOG = LoggerFactory.getLogger(Work.class);

    private final Consumer<Problem> troubles;

    /** @param troubles shows what went wrong; called on the interface thread */
    public Work(Consumer<Problem> troubles) {
        this.troubles = troubles;
    }

    /**
     * Does a task on a thread of its own.
     *
     * @param subject what to call it if it fails
     * @param then takes the result, on the interface thread
     */
    public <T> void start(String subject, Callable<T> task, Consumer<T> then) {
        start(subject, task, then, () -> {});
    }

    /** @param ended is called on the interface thread however the task ended, after the rest */
    public <T> void start(String subject, Callable<T> task, Consumer<T> then, Runnable ended) {
        Thread.ofVirtual().name(subject).start(() -> {
            try {
                var result = task.call();
                Platform.runLater(() -> {
                    try {
                        then.accept(result);
                    } finally {
                        ended.run(); // whatever was busy with it is not left so
                    }
                });
            } catch (CancellationException e) {
                Platform.runLater(ended);
            } catch (ProblemException e) {
                LOG.warn("{}", subject, e);
                fail(e.problem(), ended);
            } catch (Throwable e) {
                LOG.error("{}", subject, e);
                fail(
                        Problem.failure(
                                subject,
                                "Something unexpected happened",
                                "Nothing that was saved is lost; try again, and report this if it happens twice"),
                        ended);
            }
        });
    }

    private void fail(Problem problem, Runnable ended) {
        Platform.runLater(() -> {
            try {
                troubles.accept(problem);
            } finally {
                ended.run();
            }
        });
    }

    /** Shows a problem. */
    public void tell(Problem problem) {
        Platform.runLater(() -> troubles.accept(problem));
    }
}
