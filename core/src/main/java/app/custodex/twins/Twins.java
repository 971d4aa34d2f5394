package app.custodex.twins;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue;
import app.custodex.twins.FileTwins.Content;
import app.custodex.twins.PictureTwins.Opener;
import java.io.IOException;
import java.util.List;

/** Looks for what is in a layer more than once. */
public final class Twins {
    private Twins() {}

    /** Told what is found, and how far it is. */
    public interface Listener {
        void found(List<TwinSet> sets);

        /** Something could not be compared: it may be there twice all the same. */
        void problem(Problem problem);

        /** So many pictures were looked at. */
        default void looked(int pictures) {}
    }

    /**
     * Looks for contacts first, which are quick, then for files, then for pictures that look alike.
     *
     * @throws java.util.concurrent.CancellationException when it was stopped; what was told until then is true
     */
    public static void search(
            Catalogue catalogue, Content content, Opener pictures, Listener listener, CancelToken cancel)
            throws IOException {
        listener.found(ContactTwins.of(catalogue));
        var files = FileTwins.files(catalogue);
        var same = FileTwins.same(files, content, listener::problem, cancel);
        listener.found(same);
        listener.found(FileTwins.songs(files, same));
        listener.found(PictureTwins.of(files, same, pictures, listener, cancel));
    }
}
