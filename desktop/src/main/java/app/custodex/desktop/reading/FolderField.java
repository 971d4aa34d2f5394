package app.custodex.desktop.reading;

import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.stage.DirectoryChooser;

/** The folder into which something is written: typed, or chosen in the system's dialog. */
final class FolderField extends HBox {
    private final Desk desk;
    private final String title;
    private final TextField typed = new TextField();

    /**
     * @param id with which the identifiers of its parts begin
     * @param title of the dialog
     */
    FolderField(Desk desk, String id, String title) {
        super(8);
        this.desk = desk;
        this.title = title;
        typed.setId(id + "-folder");
        typed.setText(desk.custodex().home().handedOut().toString());
        HBox.setHgrow(typed, Priority.ALWAYS);
        setAlignment(Pos.CENTER_LEFT);
        getChildren()
                .addAll(Parts.text("Into", "lesser"), typed, Parts.button(id + "-choose", "Choose…", "", this::choose));
    }

    void onChange(Runnable changed) {
        typed.textProperty().addListener((o, was, is) -> changed.run());
    }

    /** Empty when what was typed is no folder. */
    Optional<Path> folder() {
        try {
            return Optional.of(Path.of(typed.getText().strip()).toAbsolutePath());
        } catch (InvalidPathException e) {
            return Optional.empty();
        }
    }

    /** The same; that it is no folder is told. */
    Optional<Path> folderOrTell() {
        var folder = folder();
        if (folder.isEmpty()) {
            desk.work().tell(Problem.failure(typed.getText(), "This is not a folder name", "Choose a folder"));
        }
        return folder;
    }

    private void choose() {
        var chooser = new DirectoryChooser();
        chooser.setTitle(title);
        folder().filter(Files::isDirectory).ifPresent(now -> chooser.setInitialDirectory(now.toFile()));
        Optional.ofNullable(chooser.showDialog(getScene().getWindow()))
                .ifPresent(chosen -> typed.setText(chosen.getPath()));
    }
}
