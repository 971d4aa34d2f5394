package app.custodex.drawer;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** A drawer full of practice phones. */
public interface PracticeDrawer extends AutoCloseable {
    List<PracticePhone> phones();

    /** The simulated remote account. */
    PracticeLoft loft();

    /** The visits of other phones to the shop in the months before, the oldest first. */
    List<PastVisit> history();

    /** The folder of the simulated computer's user, beside the phones. */
    String COMPUTER = "computer";

    /** Leaves there what makers' own programs would have left, unless it is there already. Takes some seconds. */
    void leaveMakersBackups() throws IOException;

    /** Puts the outline of the place where the phones live into a folder of outlines, unless it is there already. */
    void drawMap(Path folder) throws IOException;

    @Override
    void close();

    /**
     * What the phones hold. Of a number that is 0 there is as much as the demo has.
     *
     * @param seed the same seed and sizes give the same phones
     * @param files files on each phone beside its own
     * @param bytes bytes in those files, about
     * @param contacts people on each phone
     * @param messages on each phone, about
     * @param calls on each phone, about
     * @param pictures on each phone, about
     * @param sketched whether pictures are small and plain, which is a matter of seconds
     */
    record Contents(
            long seed, int files, long bytes, int contacts, int messages, int calls, int pictures, boolean sketched) {
        public static final Contents DEMO = new Contents(1, 0, 0, 0, 0, 0, 0, false);

        /** Phones with few people and plain pictures. */
        public static Contents sketched(long seed, int contacts) {
            return new Contents(seed, 0, 0, contacts, 0, 0, 0, true);
        }

        /** The same, with files that only fill the phone. */
        public Contents filled(int count, long size) {
            return new Contents(seed, count, size, contacts, messages, calls, pictures, sketched);
        }
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
