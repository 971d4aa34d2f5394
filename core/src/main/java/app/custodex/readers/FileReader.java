package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** A reader of files that each stand for themselves, wherever they lie. */
public abstract class FileReader extends NamedReader {
    private final Set<Kind> from;
    private final Set<String> endings;

    /**
     * @param from the kinds of files among which to look
     * @param endings of their names, with the dot and in small letters; empty for all
     */
    protected FileReader(String name, Set<Kind> from, Set<String> endings, Set<ThingKind> kinds) {
        super(name, kinds);
        this.from = Set.copyOf(from);
        this.endings = Set.copyOf(endings);
    }

    @Override
    public final List<Store> stores(FileSource files) throws IOException {
        var stores = new ArrayList<Store>();
        for (var kind : from) {
            for (var path : files.of(kind)) {
                if ((endings.isEmpty() || endings.contains(path.ending())) && takes(path)) {
                    stores.add(Store.of(path));
                }
            }
        }
        return stores;
    }

    @Override
    public final void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
        var path = store.items().getFirst();
        try {
            read(path, phone, sink);
        } catch (ProblemException e) {
            throw e;
        } catch (RuntimeException e) { // a library met what its authors did not expect
            throw new ProblemException(
                    Problem.failure(path.text(), "It can't be understood", "Take it out as a file and look into it"),
                    e);
        }
    }

    /** Whether a file of these kinds and endings is one of its own after all. */
    protected boolean takes(PhonePath path) {
        return true;
    }

    /** Reads one file. */
    protected abstract void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException;

    /** The folder's own name, below the folder in which the phone keeps such files; empty when it lies in that folder itself. */
    protected static String account(PhonePath path, String home) {
        if (home.isEmpty() || !path.in(new PhonePath(home))) {
            return "";
        }
        var rest = path.text().substring(home.length() + 1);
        int slash = rest.indexOf('/');
        return slash < 0 ? "" : rest.substring(0, slash);
    }
}
