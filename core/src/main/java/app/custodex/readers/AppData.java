package app.custodex.readers;

import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.App;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;

/** Whether the data of apps came along with the list of them. */
public final class AppData {
    private AppData() {}

    /** @param folder in which an app says that its data lies; empty when it keeps none */
    public static App.Data at(String folder, FileSource files) throws IOException {
        if (folder.isEmpty()) {
            return App.Data.NONE;
        }
        var path = PhonePath.parse(folder);
        return path.isPresent() && !files.in(path.get()).isEmpty() ? App.Data.HERE : App.Data.NOT_HERE;
    }

    /**
     * The stores, each with one file of every app's data as an item, so that the list is read again when data comes along that did
     * not before.
     */
    public static List<Store> with(List<Store> stores, FileSource files, PhonePath data) throws IOException {
        var first = new ArrayList<PhonePath>();
        var seen = new HashSet<String>();
        int depth = data.text().length() + 1;
        for (var file : files.in(data)) {
            int slash = file.text().indexOf('/', depth);
            if (slash > 0 && seen.add(file.text().substring(0, slash))) {
                first.add(file);
            }
        }
        return stores.stream()
                .map(store -> {
                    var items = new ArrayList<>(store.items());
                    items.addAll(first);
                    return new Store(store.name(), items);
                })
                .toList();
    }
}
