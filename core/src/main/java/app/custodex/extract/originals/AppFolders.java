package app.custodex.extract.originals;

import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.UnreadableException;
import app.custodex.extract.ZoneText;
import app.custodex.extract.pictures.PictureForm;
import app.custodex.model.App;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Apps, each in a folder of its own: what is known of it, and the files that came along with it, byte for byte. */
public final class AppFolders implements Format {
    @Override
    public String code() {
        return "folders";
    }

    @Override
    public String label() {
        return "Each app's files as they came, in a folder of its own";
    }

    @Override
    public String leavesOut() {
        return "Leaves out alarms, which have no files";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.APPS);
    }

    @Override
    public boolean writesFilesAsTheyAre() {
        return true;
    }

    @Override
    public Pace pace(Chosen chosen) {
        return Pace.AS_THEY_ARE;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var all = out.folder(batch.title());
        try (var put = new Put(batch, PictureForm.UNCHANGED, Optional.empty())) {
            for (var thing : batch.each(thing -> thing)) {
                if (thing instanceof App app) {
                    write(app, batch, put, all.folder(app.title()));
                } else {
                    batch.leftOut(thing.kind().label().toLowerCase(Locale.ROOT) + ", which have no files");
                }
            }
        }
    }

    private static void write(App app, Batch batch, Put put, OutFolder folder) throws IOException {
        folder.text("About this app", ".txt", text -> {
            for (var line : about(app, batch)) {
                text.write(Clean.line(line) + System.lineSeparator());
            }
        });
        if (app.data() != App.Data.HERE) {
            return;
        }
        for (var item : items(app, batch)) {
            var path = List.of(item.substring(app.folder().length() + 1).split("/"));
            put.into(
                    folder.sharedFolder("Data"),
                    path.subList(0, path.size() - 1),
                    path.getLast(),
                    new Attachment(item, "", ""),
                    app);
        }
    }

    private static List<String> items(App app, Batch batch) throws IOException {
        try {
            return batch.material().items(app.folder());
        } catch (UnreadableException e) {
            batch.unreadable(app.folder(), "so the files of " + app.title() + " are left out");
            return List.of();
        }
    }

    private static List<String> about(App app, Batch batch) {
        var zone = batch.material().zone();
        return List.of(
                "Name: " + app.title(),
                "Identifier: " + app.identifier(),
                "Version: " + app.version(),
                "Bytes: " + (app.bytes() > 0 ? Long.toString(app.bytes()) : "the phone does not say"),
                "Installed: "
                        + app.moment()
                                .map(at -> ZoneText.time(at.instant(zone), zone))
                                .orElse("the phone does not say"),
                "Its data: " + app.data().label());
    }
}
