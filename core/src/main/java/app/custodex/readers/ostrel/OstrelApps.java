package app.custodex.readers.ostrel;

import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.App;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.AppData;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.util.List;
import java.util.Set;

/** Reads which apps are installed, and whether the data that they keep came along. */
final class OstrelApps extends StoreReader {
    static final PhonePath FOLDER = new PhonePath("store/installed");
    private static final PhonePath STORE = FOLDER.child("installed.db");
    private static final PhonePath DATA = new PhonePath("apps");

    OstrelApps() {
        super("apps", STORE, Set.of(ThingKind.APP));
    }

    @Override
    public List<Store> stores(FileSource files) throws IOException {
        return AppData.with(super.stores(files), files, DATA);
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        losses.require(
                "apps",
                database.each(
                        "app",
                        List.of("id", "name", "version", "bytes", "installed", "data"),
                        row -> sink.thing(new App(
                                new ThingId(STORE.text(), row.text("id")),
                                "",
                                row.text("name"),
                                row.text("id"),
                                row.text("version"),
                                Math.max(0, row.number("bytes")),
                                Ostrel.moment(row, "installed"),
                                AppData.at(row.text("data"), phone.files()),
                                row.text("data")))));
    }
}
