package app.custodex.desktop.ui;

import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import javafx.application.Platform;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.service.query.NodeQuery;
import org.testfx.util.WaitForAsyncUtils;

/**
 * Looks for nodes on the interface's own thread. The library looks on the test's thread, where it runs into lists of children that are
 * being changed at that moment.
 */
public final class SteadyRobot extends ApplicationExtension {
    @Override
    public NodeQuery lookup(String query) {
        if (Platform.isFxApplicationThread()) {
            return super.lookup(query);
        }
        try {
            return WaitForAsyncUtils.asyncFx(() -> super.lookup(query)).get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted while looking for " + query);
        } catch (ExecutionException e) {
            throw new AssertionError("could not look for " + query, e.getCause());
        }
    }
}
