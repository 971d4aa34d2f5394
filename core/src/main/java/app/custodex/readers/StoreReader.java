package app.custodex.readers;

import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.List;
import java.util.Set;

/** A reader of one database that always lies in the same place. */
public abstract class StoreReader extends NamedReader {
    private final PhonePath path;

    protected StoreReader(String name, PhonePath path, Set<ThingKind> kinds) {
        super(name, kinds);
        this.path = path;
    }

    @Override
    public List<Store> stores(FileSource files) throws IOException {
        return files.has(path) ? List.of(new Store(path.text(), PhoneDatabase.items(files, path))) : List.of();
    }

    @Override
    public final void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
        var database = phone.database(path);
        var losses = new Losses(path.text(), sink);
        losses.tellDamage(database);
        read(database, phone, sink, losses);
    }

    /** Reads the tables. */
    protected abstract void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException;
}
