package app.custodex.desktop.guide;

import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.IThrowableProxy;
import ch.qos.logback.core.AppenderBase;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;

/**
 * What went wrong lately, for the report of a problem: when, where in the program, and the kinds of the errors. What an event says in words is
 * never kept, since names of customers and of their files stand in it.
 */
public final class RecentEvents extends AppenderBase<ILoggingEvent> {
    private static final int KEPT = 100;
    private static final int FRAMES = 8;
    private static final Deque<String> EVENTS = new ArrayDeque<>();

    @Override
    protected void append(ILoggingEvent event) {
        var line = new StringBuilder();
        line.append(Instant.ofEpochMilli(event.getTimeStamp()))
                .append(' ')
                .append(event.getLevel())
                .append(' ')
                .append(event.getLoggerName());
        for (var thrown = event.getThrowableProxy(); thrown != null; thrown = thrown.getCause()) {
            add(thrown, line);
        }
        synchronized (EVENTS) {
            EVENTS.add(line.toString());
            while (EVENTS.size() > KEPT) {
                EVENTS.remove();
            }
        }
    }

    private static void add(IThrowableProxy thrown, StringBuilder to) {
        to.append("\n    ").append(thrown.getClassName());
        var frames = thrown.getStackTraceElementProxyArray();
        for (int i = 0; i < Math.min(FRAMES, frames.length); i++) {
            to.append("\n        ").append(frames[i].getSTEAsString());
        }
    }

    /** The earliest first. */
    static List<String> all() {
        synchronized (EVENTS) {
            return new ArrayList<>(EVENTS);
        }
    }
}
