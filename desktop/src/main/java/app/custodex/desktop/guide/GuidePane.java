package app.custodex.desktop.guide;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.guide.GuideText.Block;
import app.custodex.desktop.guide.GuideText.Hit;
import app.custodex.desktop.guide.GuideText.Keys;
import app.custodex.desktop.guide.GuideText.Page;
import app.custodex.desktop.guide.GuideText.Words;
import app.custodex.desktop.ui.Parts;
import java.nio.file.Path;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;

/** The guide beside the work: opens at the page of the place where one is. */
public final class GuidePane extends VBox {
    private final Desk desk;
    private final Supplier<String> here;
    private final GuideText text = GuideText.load();
    private final TextField find = new TextField();
    private final VBox body = new VBox(10);
    private final ScrollPane scroll = new ScrollPane(body);
    private final Button all = Parts.button("guide-all", "All pages", "", () -> list(""), "row-button", "scope");

    /** @param here the page of the place where one is */
    public GuidePane(Desk desk, Supplier<String> here) {
        this.desk = desk;
        this.here = here;
        setId("guide");
        getStyleClass().add("guide");
        find.setId("guide-find");
        find.setPromptText("Find in the guide…");
        find.textProperty().addListener((o, was, is) -> list(is));
        HBox.setHgrow(find, Priority.ALWAYS);
        var title = Parts.text("Guide", "title");
        title.setMinWidth(USE_PREF_SIZE);
        var head = new HBox(10, title, find, all, Parts.button("guide-close", "Close", "Esc", this::close));
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 10 14 10 16;");
        body.setStyle("-fx-padding: 14 18 16 16;");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var foot = new HBox(Parts.button("report-open", "Save a problem report…", "", this::report));
        foot.setStyle("-fx-padding: 8 14 10 16;");
        getChildren().addAll(head, Parts.rule(), scroll, Parts.rule(), foot);
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                close();
                event.consume();
            }
        });
        close();
    }

    /** Opens it at the page of this place, or closes it. */
    public void toggle() {
        if (isVisible()) {
            close();
        } else {
            setVisible(true);
            find.clear();
            show(text.page(here.get()));
            find.requestFocus();
        }
    }

    private void close() {
        setVisible(false);
    }

    private void list(String typed) {
        body.getChildren().clear();
        var hits = text.find(typed);
        if (hits.isEmpty()) {
            body.getChildren().add(Parts.sentence("No page of the guide says this.", "lesser"));
        }
        hits.forEach(hit -> body.getChildren().add(entry(hit)));
        scroll.setVvalue(0);
    }

    private Node entry(Hit hit) {
        var open = Parts.button(
                "guide-page-" + hit.page().id(), hit.page().title(), "", () -> show(hit.page()), "row-button", "scope");
        var entry = new VBox(3, open);
        if (!hit.says().isEmpty()) {
            entry.getChildren().add(Parts.sentence(hit.says(), "lesser"));
        }
        return entry;
    }

    private void show(Page page) {
        body.getChildren().clear();
        var title = Parts.text(page.title(), "heading");
        title.setId("guide-title");
        body.getChildren().add(title);
        page.blocks().forEach(block -> body.getChildren().add(node(block)));
        scroll.setVvalue(0);
    }

    private static Node node(Block block) {
        return switch (block) {
            case Words words -> flow(words);
            case Keys keys -> {
                var key = Parts.key(keys.keys());
                key.setMinWidth(USE_PREF_SIZE);
                var does = Parts.sentence(keys.does());
                HBox.setHgrow(does, Priority.ALWAYS);
                var line = new HBox(10, key, does);
                line.setAlignment(Pos.CENTER_LEFT);
                yield line;
            }
        };
    }

    private static TextFlow flow(Words words) {
        var flow = new TextFlow();
        flow.setLineSpacing(2);
        if (words.bullet()) {
            flow.getChildren().add(run("•  ", false));
        }
        words.spans().forEach(span -> flow.getChildren().add(run(span.text(), span.strong())));
        return flow;
    }

    private static Text run(String words, boolean strong) {
        var run = new Text(words);
        run.getStyleClass().add(strong ? "guide-strong" : "guide-text");
        return run;
    }

    /** What would be saved is looked at first. */
    private void report() {
        desk.work()
                .start(
                        "Settings",
                        () -> desk.custodex().settings(),
                        settings -> show(ProblemReport.of(desk, settings)));
    }

    private void show(ProblemReport made) {
        var area = new TextArea(made.text());
        area.setId("report-text");
        area.setEditable(false);
        area.setWrapText(true);
        area.setPrefRowCount(20);
        area.getStyleClass().add("mono");
        var file = new TextField(
                Path.of(System.getProperty("user.home"), "custodex-report.txt").toString());
        file.setId("report-file");
        var saved = new Label();
        saved.setId("report-saved");
        saved.setWrapText(true);
        var save = Parts.button(
                "report-save",
                "Save it",
                "",
                () -> desk.work()
                        .start(
                                "The report",
                                () -> {
                                    made.save(Path.of(file.getText().strip()));
                                    return file.getText().strip();
                                },
                                where -> saved.setText("Saved as " + where + ".")),
                "main");
        body.getChildren()
                .setAll(
                        Parts.text("Problem report", "heading"),
                        Parts.sentence(
                                "This is all that is saved. It says which program ran on what, how much there is of everything, and"
                                        + " where in the program something went wrong; it names no customer, phone or file."),
                        area,
                        Parts.row(Parts.text("File", "lesser"), file, save),
                        saved);
        HBox.setHgrow(file, Priority.ALWAYS);
        scroll.setVvalue(0);
    }
}
