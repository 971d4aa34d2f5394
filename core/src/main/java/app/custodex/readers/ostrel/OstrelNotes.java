package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Note;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads notes with their folders, drawings and other files. */
final class OstrelNotes extends StoreReader {
    private static final String FOLDER = "store/notes/";
    private static final String STORE = FOLDER + "notes.db";

    OstrelNotes() {
        super("notes", new PhonePath(STORE), Set.of(ThingKind.NOTE));
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var folders = new HashMap<Long, String>();
        losses.tell(
                "folders",
                database.each("folder", List.of("id", "name"), row -> folders.put(row.number("id"), row.text("name"))));
        var files = new HashMap<Long, List<Attachment>>();
        losses.tell("files in notes", database.each("note_file", List.of("note", "path", "name", "type"), row -> {
            var item = FOLDER + row.text("path");
            boolean there = phone.files().has(new PhonePath(item));
            files.computeIfAbsent(row.number("note"), id -> new ArrayList<>(1))
                    .add(new Attachment(there ? item : "", row.text("name"), row.text("type")));
        }));
        var columns = new ArrayList<>(List.of("id", "folder", "title", "text", "changed", "account"));
        boolean newer = database.has("note", "made");
        if (newer) {
            columns.add("made");
        }
        losses.require(
                "notes",
                database.each(
                        "note",
                        columns,
                        row -> sink.thing(new Note(
                                new ThingId(STORE, Long.toString(row.number("id"))),
                                row.text("account"),
                                folders.getOrDefault(row.number("folder"), ""),
                                row.text("title"),
                                row.text("text"),
                                Ostrel.moment(row, "changed"),
                                files.getOrDefault(row.number("id"), List.of()),
                                newer ? Ostrel.moment(row, "made") : Optional.empty()))));
    }
}
