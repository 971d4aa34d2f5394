package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Opener;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.docket.RouteStep;
import app.custodex.extract.ExtractResult;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import javafx.beans.binding.Bindings;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.SelectionMode;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What an extraction has written, and what can be done with it next. */
final class ExtractedFiles extends VBox {
    private static final double ROW = 30;
    private static final int MOST_ROWS = 8;

    private final Desk desk;

    ExtractedFiles(Desk desk) {
        super(8);
        this.desk = desk;
        setId("extract-result");
        clear();
    }

    void clear() {
        setVisible(false);
        getChildren().clear();
    }

    /** @param of the phone whose data it is */
    void show(OpenPhone of, ExtractResult written, Path target) {
        var words = desk.words().count(written.things(), "thing", "things") + " in "
                + desk.words().count(written.files().size(), "file", "files");
        var state = Parts.state(Mark.DONE, words);
        state.setId("extract-done");
        var head = new HBox(
                10,
                state,
                Parts.gap(),
                Parts.button(
                        "extract-show-folder",
                        "Open the folder",
                        "",
                        () -> desk.work().start("Open the folder", () -> Opener.openFolder(target), opened -> {})));
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("sealed-card");
        var files = files(written.files());
        getChildren().setAll(head, files, actions(of, files, target));
        if (!written.leftOut().isEmpty()) {
            getChildren()
                    .addAll(
                            Parts.text("Left out", "heading"),
                            list("extract-left-out", written.leftOut(), Function.identity()));
        }
        if (!written.problems().isEmpty()) {
            getChildren()
                    .addAll(
                            Parts.text("Worth knowing", "heading"),
                            list("extract-problems", written.problems(), Problem::sentence));
        }
        setVisible(true);
    }

    private ListView<Path> files(List<Path> written) {
        var files = list("extract-files", written, Path::toString);
        files.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        files.setOnMouseClicked(event -> {
            if (event.getButton() == MouseButton.PRIMARY && event.getClickCount() == 2) {
                open(files);
            }
        });
        files.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER && !event.isShortcutDown()) {
                open(files);
                event.consume();
            }
        });
        files.getSelectionModel().selectFirst();
        return files;
    }

    private HBox actions(OpenPhone of, ListView<Path> files, Path target) {
        var chosen = files.getSelectionModel().getSelectedItems();
        var open = Parts.button("extract-open", "Open", "Enter", () -> open(files));
        var print = Parts.button(
                "extract-print",
                "Print…",
                "",
                () -> new PaperPrint(desk)
                        .print(of, chosen.getFirst(), getScene().getWindow()));
        var mail = Parts.button("extract-mail", "Mail draft", "", () -> mail(of, List.copyOf(chosen), target));
        var one = Bindings.size(chosen).isEqualTo(1);
        open.disableProperty().bind(one.not());
        print.disableProperty()
                .bind(Bindings.createBooleanBinding(
                        () -> chosen.size() != 1
                                || !chosen.getFirst().toString().endsWith(".pdf"),
                        chosen));
        mail.disableProperty().bind(Bindings.isEmpty(chosen));
        var about =
                Parts.sentence("A PDF can be printed from here; what is chosen can hang on a mail draft.", "lesser");
        about.setMinWidth(0);
        var actions = new HBox(8, open, print, mail, about);
        actions.setAlignment(Pos.CENTER_LEFT);
        return actions;
    }

    private void open(ListView<Path> files) {
        var file = files.getSelectionModel().getSelectedItem();
        if (file != null) {
            desk.work().start("Open a file", () -> Opener.openFile(file), opened -> {});
        }
    }

    private void mail(OpenPhone of, List<Path> attached, Path target) {
        desk.work()
                .start(
                        "Mail draft",
                        () -> of.outgoing().mailDraft("From " + of.phone().name(), attached, target),
                        draft -> {
                            desk.stepDone(of.phone(), RouteStep.EXTRACT);
                            desk.work()
                                    .tell(Problem.note(
                                            draft.toString(),
                                            "The mail draft was written, with "
                                                    + desk.words().count(attached.size(), "file", "files"),
                                            "Open it in a mail program, look through it, and send it"));
                        });
    }

    private <T> ListView<T> list(String id, List<T> items, Function<T, String> words) {
        var list = new ListView<>(FXCollections.observableList(items));
        list.setId(id);
        list.setFixedCellSize(ROW);
        list.setPrefHeight(Math.min(MOST_ROWS, items.size()) * ROW + 2);
        list.setMinHeight(Math.min(3, items.size()) * ROW + 2);
        list.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable T item, boolean empty) {
                super.updateItem(item, empty);
                setPrefWidth(0);
                setGraphic(empty || item == null ? null : desk.veil().line(words.apply(item)));
            }
        });
        return list;
    }
}
