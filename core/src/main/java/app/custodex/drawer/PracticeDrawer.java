package app.custodex.drawer;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** A drawer full of practice phones. */
public interface PracticeDrawer extends AutoCloseable {
    List<PracticePhone> phones();

    /** The simulated remote account. */
    PracticeLoft loft();

    @Override
    void close();

    /**
     * What the phones hold.
     *
     * @param seed the same seed and sizes give the same phones
     * @param files files on each phone beside its stores; 0 for the demo's own
     * @param bytes bytes in those files, about
     * @param contacts people on each phone; 0 for the demo's own
     */
    record Contents(long seed, int files, long bytes, int contacts) {
        public static final Contents DEMO = new Contents(1, 0, 0, 0);
    }

    /** Found by {@link java.util.ServiceLoader}. */
    interface Provider {
        /**
         * Opens the drawer in a folder, filling it with phones when it is empty.
         *
         * @throws IOException when the folder can't be written
         */
        PracticeDrawer open(Path folder, Contents contents) throws IOException;
    }
}
