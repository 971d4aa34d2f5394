package app.custodex.strongroom;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;

/** The stored files of a layer that are open at the moment: a few, whichever were used last, however many the layer has. */
final class OpenContents implements Closeable {
    private static final int KEPT = 8;

    /** Opens a stored file by its logical path. */
    interface Opener {
        Content open(String name) throws IOException;
    }

    /** Reads a stored file by places in its plain content. */
    interface Read {
        int read(ByteBuffer into, long from) throws IOException;
    }

    /** A stored file. Closing it gives it back; it is really closed when nobody uses it and others were used since. */
    static final class Content implements Closeable {
        private final Read read;
        private final Closeable file;
        private int users;
        private boolean dropped;

        private Content(Read read, Closeable file) {
            this.read = read;
            this.file = file;
        }

        static Content of(Read read, Closeable file) {
            return new Content(read, file);
        }

        int read(ByteBuffer into, long from) throws IOException {
            return read.read(into, from);
        }

        private synchronized boolean take() {
            if (dropped) {
                return false;
            }
            users++;
            return true;
        }

        private synchronized void drop() throws IOException {
            dropped = true;
            if (users == 0) {
                file.close();
            }
        }

        @Override
        public synchronized void close() throws IOException {
            users--;
            if (dropped && users == 0) {
                file.close();
            }
        }
    }

    private final Opener opener;
    private final Map<String, Content> open = new LinkedHashMap<>(KEPT, 0.75f, true);

    OpenContents(Opener opener) {
        this.opener = opener;
    }

    /** The caller closes it when it has read. */
    Content get(String name) throws IOException {
        synchronized (this) {
            var there = open.get(name);
            if (there != null && there.take()) {
                return there;
            }
        }
        var opened = opener.open(name); // takes its time, so others are not held up by it
        opened.take();
        synchronized (this) {
            var before = open.put(name, opened);
            if (before != null) {
                before.drop();
            }
            if (open.size() > KEPT) {
                var eldest = open.entrySet().iterator().next();
                open.remove(eldest.getKey());
                eldest.getValue().drop();
            }
        }
        return opened;
    }

    @Override
    public synchronized void close() throws IOException {
        for (var content : new ArrayList<>(open.values())) {
            content.drop();
        }
        open.clear();
    }
}
