package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.app.Outgoing;
import app.custodex.base.Problem;
import app.custodex.base.SafeNames;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.docket.RouteStep;
import app.custodex.link.PhonePath;
import app.custodex.readers.DatabaseRows;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.FXCollections;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/** The tables of a phone's database, and a line for questions that only read. */
final class DatabaseLook extends VBox {
    private static final int MOST = 1_000;
    private static final String OPENING = "Opening it…";
    private static final String ASKING = "Asking…";
    private static final double NARROWEST = 60;
    private static final double WIDEST = 320;
    private static final double CHARACTER = 8.5;

    private final Desk desk;
    private final ComboBox<String> tables = new ComboBox<>();
    private final TextField question = new TextField();
    private final Label count = Parts.sentence("", "lesser");
    private final TableView<List<String>> rows = new TableView<>();
    private final MenuButton takeOut = new MenuButton("Take out…");
    private Optional<OpenPhone> phone = Optional.empty();
    private PhonePath path = PhonePath.ROOT;
    private int asked;

    DatabaseLook(Desk desk) {
        super(8);
        this.desk = desk;
        setId("database");
        tables.setId("database-tables");
        tables.setAccessibleText("Table");
        tables.valueProperty().addListener((o, was, is) -> {
            if (is != null) {
                question.setText("SELECT * FROM \"" + is.replace("\"", "\"\"") + "\"");
                ask();
            }
        });
        question.setId("database-question");
        question.setPromptText("A question in SQL; it only reads");
        question.getStyleClass().add("mono");
        question.setOnAction(event -> ask());
        HBox.setHgrow(question, Priority.ALWAYS);
        count.setId("database-count");
        takeOut.setId("database-take-out");
        takeOut.getStyleClass().add("small-menu");
        takeOut.setMinWidth(USE_PREF_SIZE);
        takeOut.getItems()
                .setAll(
                        item(
                                "These rows as CSV",
                                ".csv",
                                (out, file) -> out.takeOutRows(path, question.getText(), file)),
                        item("One file, with what stands in its log", "", (out, file) -> {
                            out.takeOutMerged(path, file);
                            return 1;
                        }),
                        item(
                                "As it is, with its log beside it",
                                "",
                                (out, file) -> out.takeOutDatabase(path, file).size()));
        rows.setId("database-rows");
        rows.setPlaceholder(Parts.text("No rows", "lesser"));
        VBox.setVgrow(rows, Priority.ALWAYS);
        getChildren()
                .addAll(
                        Parts.row(Parts.text("Table", "lesser"), tables, Parts.gap(), takeOut),
                        new HBox(8, question, Parts.button("database-ask", "Ask", "Enter", this::ask)),
                        count,
                        rows);
    }

    private interface TakingOut {
        long to(Outgoing out, Path file) throws IOException;
    }

    private MenuItem item(String words, String ending, TakingOut taking) {
        var item = new MenuItem(words);
        item.setOnAction(event -> {
            var chooser = new FileChooser();
            chooser.setTitle("Where to write the file");
            chooser.setInitialFileName(SafeNames.of(path.name(), "database") + ending);
            Optional.ofNullable(chooser.showSaveDialog(getScene().getWindow()))
                    .ifPresent(target -> takeOut(taking, target.toPath()));
        });
        return item;
    }

    private void takeOut(TakingOut taking, Path target) {
        phone.ifPresent(open -> desk.work().start(target.toString(), () -> taking.to(open.outgoing(), target), done -> {
            desk.stepDone(open.phone(), RouteStep.EXTRACT);
            desk.work().tell(Problem.note(target.toString(), "It was written", "The docket remembers where"));
        }));
    }

    void clear() {
        asked++;
        phone = Optional.empty();
        tables.getItems().clear();
        question.clear();
        count.setText("");
        clearRows();
    }

    private void clearRows() {
        rows.setItems(FXCollections.observableArrayList());
        rows.getColumns().clear();
    }

    void show(OpenPhone of, PhonePath database) {
        clear();
        phone = Optional.of(of);
        path = database;
        int mine = asked;
        count.setText(OPENING);
        desk.work()
                .start(
                        "A database",
                        () -> of.tables(database),
                        found -> {
                            if (mine == asked) {
                                count.setText(found.isEmpty() ? "It has no tables." : "");
                                tables.getItems().setAll(found);
                                tables.getSelectionModel().selectFirst();
                            }
                        },
                        () -> {
                            if (mine == asked && count.getText().equals(OPENING)) {
                                count.setText(
                                        "It could not be opened; the line below says why. Its bytes can be looked at.");
                            }
                        });
    }

    private void ask() {
        int mine = ++asked;
        var sql = question.getText();
        phone.ifPresent(open -> {
            count.setText(ASKING);
            desk.work()
                    .start(
                            "A database",
                            () -> open.ask(path, sql, MOST),
                            found -> {
                                if (mine == asked) {
                                    show(found);
                                }
                            },
                            () -> {
                                if (mine == asked && count.getText().equals(ASKING)) {
                                    count.setText("No answer; the line below says why.");
                                }
                            });
        });
    }

    private void show(DatabaseRows found) {
        clearRows();
        for (int i = 0; i < found.columns().size(); i++) {
            int column = i;
            var shown = new TableColumn<List<String>, String>(found.columns().get(i));
            shown.setPrefWidth(width(found, column));
            shown.setSortable(false);
            shown.setCellValueFactory(
                    row -> new ReadOnlyStringWrapper(row.getValue().get(column).replace('\n', ' ')));
            rows.getColumns().add(shown);
        }
        rows.setItems(FXCollections.observableList(found.rows()));
        count.setText((found.more() ? "The first " : "")
                + desk.words().count(found.rows().size(), "row", "rows")
                + (found.more() ? ", and there are more" : ""));
    }

    /** As wide as the longest of its first values. */
    private static double width(DatabaseRows found, int column) {
        int longest = found.rows().stream()
                .limit(50)
                .mapToInt(row -> row.get(column).length())
                .max()
                .orElse(0);
        int name = found.columns().get(column).length();
        return Math.clamp(24 + CHARACTER * Math.max(longest, name), NARROWEST, WIDEST);
    }
}
