package app.custodex.strongroom;

import app.custodex.link.Kind;
import app.custodex.link.Listed;
import java.io.Closeable;
import java.io.IOException;
import java.util.Arrays;

/**
 * A large item on its way into a stored file of its own. Closing it before {@link #finish} drops it, unless it was {@link #leave
 * left} so that a later attempt can go on with it.
 */
public final class LargeItem implements Closeable {
    /** As much of an item's beginning as tells what it is. */
    static final int HEAD = 1 << 12;

    /** The content on its way to the disk. */
    interface Parts extends Closeable {
        /** Bytes of content that are stored or wait to be. */
        long size();

        void write(byte[] bytes, int length) throws IOException;

        /** Hands over what another attempt can go on behind. */
        void leave() throws IOException;

        Finished finish() throws IOException;

        void sync() throws IOException;
    }

    /**
     * @param digest of the content
     * @param stored of the bytes on the disk
     */
    record Finished(String digest, String stored, long storedSize) {}

    private final LayerDraft draft;
    private final Listed.File file;
    private final String name;
    private final Parts parts;

    private byte[] head;
    private boolean kept;

    /** @param head the first bytes of what is stored already */
    LargeItem(LayerDraft draft, Listed.File file, String name, Parts parts, byte[] head) {
        this.draft = draft;
        this.file = file;
        this.name = name;
        this.parts = parts;
        this.head = head;
    }

    /** Bytes that need not be read again. */
    public long size() {
        return parts.size();
    }

    /** Its first bytes, a few thousand if it has so many, for telling what it is. */
    public byte[] head() {
        return head.clone();
    }

    /** The item as the phone listed it when it was begun. */
    Listed.File file() {
        return file;
    }

    public void write(byte[] bytes, int length) throws IOException {
        if (head.length < HEAD) {
            int more = Math.min(length, HEAD - head.length);
            var longer = Arrays.copyOf(head, head.length + more);
            System.arraycopy(bytes, 0, longer, head.length, more);
            head = longer;
        }
        parts.write(bytes, length);
    }

    /** @param is the item as it was read, which may be newer than what the phone listed */
    public ManifestItem finish(Listed.File is, Kind kind, ManifestItem.Origin origin) throws IOException {
        var finished = parts.finish();
        var there = draft.place(finished.digest());
        var place = there.orElse(new ManifestItem.Place(name, 0));
        var item = ManifestItem.stored(is, kind, parts.size(), finished.digest(), place, origin);
        if (there.isEmpty()) {
            parts.sync();
            kept = true;
            draft.stored(name, finished, item);
        }
        draft.keep(item);
        return item;
    }

    /** Lets go of it without dropping what is stored of it: the next attempt may go on with it. */
    public void leave() throws IOException {
        if (parts.size() > 0) {
            kept = true;
            parts.leave();
        }
    }

    @Override
    public void close() throws IOException {
        parts.close();
        if (!kept) {
            draft.drop(name);
        }
    }
}
