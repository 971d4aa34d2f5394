package app.custodex.desktop.reading;

import app.custodex.catalogue.Spine.View;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.KindGroup;
import java.io.File;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.stage.FileChooser;

/** What has been picked in the open layer, in words, and what can be done with it. */
final class TrayBar extends HBox {
    private final Desk desk;
    private final TrayModel tray;
    private final RoomModel room;
    private final Label words = Parts.text("");
    private final Button pickAll;
    private final Button lookThrough = Parts.button("tray-look", "Look through", "", this::lookThrough);
    private final Button empty;
    private final Button takeOut;

    /**
     * @param pickAllShown puts in everything that is shown
     * @param extract shows how what is in it can be taken out
     */
    TrayBar(Desk desk, TrayModel tray, RoomModel room, Runnable pickAllShown, Runnable extract) {
        this.desk = desk;
        this.tray = tray;
        this.room = room;
        words.setId("tray");
        pickAll = Parts.button("tray-all", "Put in all that is shown", "Ctrl+T", pickAllShown);
        empty = Parts.button("tray-clear", "Empty it", "", tray::clear);
        takeOut = Parts.button("extract-open", "Extract…", "Ctrl+E", extract, "main");
        var computer = Parts.button("tray-computer", "From this computer…", "", this::pickFiles);
        words.setMinWidth(0);
        getChildren()
                .addAll(
                        Parts.text("Tray", "strong"),
                        words,
                        pickAll,
                        lookThrough,
                        empty,
                        Parts.gap(),
                        computer,
                        takeOut);
        setSpacing(14);
        setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("tray");
        tray.picked().addListener((o, was, is) -> show());
        room.answer().addListener((o, was, is) -> show());
        allow(false);
        show();
    }

    /** Whether things can be put in and taken out: not before all of a layer is there. */
    void allow(boolean picking) {
        pickAll.setDisable(!picking);
        takeOut.setDisable(!picking);
    }

    private void pickFiles() {
        var chooser = new FileChooser();
        chooser.setTitle("Files to convert or cut");
        Optional.ofNullable(chooser.showOpenMultipleDialog(getScene().getWindow()))
                .ifPresent(
                        files -> desk.readLoose(files.stream().map(File::toPath).toList()));
    }

    private void show() {
        var picked = tray.picked().get();
        empty.setDisable(picked.isEmpty());
        lookThrough.setDisable(picked.isEmpty() && !room.asked().picked());
        lookThrough.setText(room.asked().picked() ? "Show the layer again" : "Look through");
        words.setText(room.room()
                .get()
                .filter(in -> !picked.isEmpty())
                .map(in -> words(in, picked))
                .orElse("nothing is in it yet; files of this computer can be dropped here"));
    }

    private String words(RoomModel.Room in, BitSet picked) {
        var seen = in.spine().see(new View(Optional.empty(), new BitSet(), Optional.of(picked)));
        var parts = new ArrayList<String>();
        long bytes = 0;
        for (var group : KindGroup.values()) {
            int count = group.kinds().stream().mapToInt(seen::of).sum();
            bytes += group.kinds().stream().mapToLong(seen::bytesOf).sum();
            if (count > 0) {
                parts.add(group.label() + " " + desk.words().count(count));
            }
        }
        if (bytes > 0) {
            parts.add(desk.words().bytes(bytes));
        }
        return String.join(" · ", parts);
    }

    /** Shows what is in it, and only that; or all again. */
    private void lookThrough() {
        room.ask(room.asked().picked() ? room.asked().picked(false) : RoomModel.Asked.EVERYTHING.picked(true));
    }
}
