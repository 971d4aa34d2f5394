package app.custodex.readers.pellow;

import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.App;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.AppData;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/** Reads which apps are installed, and whether the data that they keep came along. */
final class PellowApps extends ListReader {
    static final PhonePath FOLDER = new PhonePath("Shared/Apps");
    private static final PhonePath LIST = FOLDER.child("apps.json");
    private static final PhonePath DATA = new PhonePath("App data");

    PellowApps() {
        super("apps", LIST, ThingKind.APP);
    }

    @Override
    public List<Store> stores(FileSource files) throws IOException {
        return AppData.with(super.stores(files), files, DATA);
    }

    @Override
    void entry(JsonNode entry, int number, PhoneFiles phone, Sink sink) throws IOException {
        var installed = text(entry, "installed");
        sink.thing(new App(
                new ThingId(LIST.text(), text(entry, "id")),
                "",
                text(entry, "name"),
                text(entry, "id"),
                text(entry, "version"),
                Math.max(0, entry.path("bytes").asLong(0)),
                installed.isEmpty() ? Optional.empty() : Optional.of(new Moment.Day(LocalDate.parse(installed))),
                AppData.at(text(entry, "data"), phone.files()),
                text(entry, "data")));
    }
}
