package app.custodex.desktop.strongroom;

import app.custodex.base.CancelToken;
import app.custodex.desktop.Desk;
import app.custodex.desktop.SealedLayer;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.UserText;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.StoredPhone;
import app.custodex.strongroom.Strongroom;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Every phone that is kept, its layers as strata, and the layers of the one that is chosen. */
public final class StrongroomView extends VBox {
    private final Desk desk;
    private final Label summary = Parts.text("", "lesser");
    private final ListView<StoredPhone> phones = new ListView<>();
    private final ListView<SealedLayer> layers = new ListView<>();
    private final Label chosen = Parts.text("", "heading");
    private final Label progress = Parts.text("", "lesser");
    private final Button read;
    private final Button check;
    private final Button stop;
    private final VBox damage = new VBox(3);
    private Optional<CancelToken> running = Optional.empty();

    public StrongroomView(Desk desk) {
        this.desk = desk;
        setId("strongroom");
        getStyleClass().add("place-ground");
        setSpacing(12);
        read = Parts.button("layer-read", "Read layer", "Enter", this::read, "main");
        check = Parts.button("layer-check", "Check now", "", this::check);
        stop = Parts.button("layer-check-stop", "Stop checking", "", () -> running.ifPresent(CancelToken::cancel));
        stop.setVisible(false);
        stop.setManaged(false);
        summary.setId("strongroom-summary");
        var head = new HBox(14, Parts.text("Strongroom", "title"), summary);
        head.setAlignment(Pos.BASELINE_LEFT);
        phones.setId("stored-phones");
        phones.setFixedCellSize(92);
        phones.getStyleClass().add("pane-border");
        phones.setPlaceholder(
                Parts.sentence("Nothing is kept here yet. A backup puts its first layer here.", "lesser"));
        phones.setCellFactory(view -> new PhoneCell(desk));
        phones.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> choose(is));
        VBox.setVgrow(phones, Priority.ALWAYS);
        layers.setId("stored-layers");
        layers.setFixedCellSize(32);
        layers.setPrefHeight(200);
        layers.setMinHeight(100);
        layers.getStyleClass().add("pane-border");
        layers.setCellFactory(view -> new LayerCell());
        layers.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> refreshButtons());
        layers.setOnMouseClicked(event -> {
            if (event.getClickCount() == 2) {
                read();
            }
        });
        layers.setOnKeyPressed(event -> {
            if (event.getCode() == javafx.scene.input.KeyCode.ENTER) {
                read();
            }
        });
        var actions = new HBox(10, chosen, progress, Parts.gap(), stop, check, read);
        actions.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(head, phones, actions, layers, damage);
        desk.holdings().addListener((o, was, is) -> show(is));
        show(desk.holdings().get());
        refreshButtons();
    }

    private void show(Strongroom.Holdings holdings) {
        var identifier = Optional.ofNullable(phones.getSelectionModel().getSelectedItem())
                .map(phone -> phone.identity().identifier());
        phones.setItems(FXCollections.observableList(holdings.phones()));
        long stored =
                holdings.phones().stream().mapToLong(StoredPhone::storedBytes).sum();
        long count = holdings.phones().stream()
                .mapToLong(phone -> phone.layers().size())
                .sum();
        var words = desk.words();
        var where = "in " + desk.custodex().strongroom().root();
        summary.setText(where + " · " + words.count(holdings.phones().size(), "phone", "phones") + ", "
                + words.count(count, "layer", "layers") + ", " + words.bytes(stored));
        identifier
                .flatMap(holdings::phone)
                .ifPresentOrElse(
                        phone -> phones.getSelectionModel().select(phone),
                        () -> phones.getSelectionModel().selectFirst());
    }

    private void choose(@Nullable StoredPhone phone) {
        if (phone == null) {
            chosen.setText("");
            layers.setItems(FXCollections.emptyObservableList());
            return;
        }
        chosen.setText("Layers of " + phone.identity().name());
        desk.work().start("Layers", () -> desk.sealed(phone.identity()), found -> {
            int before = layers.getSelectionModel().getSelectedIndex();
            boolean same = layers.getItems().size() == found.size();
            layers.setItems(FXCollections.observableList(found.reversed()));
            layers.getSelectionModel().select(same ? Math.max(0, before) : 0);
            refreshButtons();
        });
    }

    private Optional<SealedLayer> layer() {
        return Optional.ofNullable(layers.getSelectionModel().getSelectedItem());
    }

    private void refreshButtons() {
        read.setDisable(layer().isEmpty());
        check.setDisable(layer().isEmpty() || running.isPresent());
        damage.getChildren().clear();
        layer().flatMap(SealedLayer::lastCheck)
                .filter(report -> !report.sound())
                .ifPresent(this::tellDamage);
    }

    private void tellDamage(CheckReport report) {
        report.damage().stream()
                .limit(3)
                .forEach(d -> damage.getChildren().add(Parts.state(Mark.TROUBLE, d.sentence())));
        damage.getChildren()
                .add(Parts.sentence(
                        desk.words().count(report.items().size(), "item is", "items are") + " hit"
                                + (report.items().isEmpty()
                                        ? "."
                                        : ", the first: " + report.items().getFirst() + "."),
                        "lesser"));
    }

    private void read() {
        layer().ifPresent(l -> desk.read(l.record().phone(), l.record().number(), false));
    }

    private void check() {
        var target = layer();
        if (target.isEmpty() || running.isPresent()) {
            return;
        }
        var record = target.get().record();
        var cancel = new CancelToken();
        running = Optional.of(cancel);
        var bytes = new AtomicLong();
        var ticker = new Timeline(new KeyFrame(
                javafx.util.Duration.millis(250),
                event -> progress.setText("read back " + desk.words().bytes(bytes.get()))));
        ticker.setCycleCount(Animation.INDEFINITE);
        ticker.play();
        checking(true);
        desk.work()
                .start(
                        "Check of layer " + record.number(),
                        () -> desk.custodex()
                                .check(record.phone().identifier(), record.number(), bytes::addAndGet, cancel),
                        report -> progress.setText(
                                "layer " + report.layer() + ": " + (report.sound() ? "sound" : "damaged")),
                        () -> {
                            ticker.stop();
                            running = Optional.empty();
                            if (cancel.isCancelled()) {
                                progress.setText("stopped; nothing is concluded");
                            }
                            checking(false);
                            desk.refreshHoldings();
                            choose(phones.getSelectionModel().getSelectedItem());
                        });
    }

    private void checking(boolean on) {
        stop.setVisible(on);
        stop.setManaged(on);
        check.setDisable(on);
    }

    /** One layer on one line. */
    private final class LayerCell extends ListCell<SealedLayer> {
        @Override
        protected void updateItem(@Nullable SealedLayer layer, boolean empty) {
            super.updateItem(layer, empty);
            if (empty || layer == null) {
                setGraphic(null);
                return;
            }
            var words = desk.words();
            var record = layer.record();
            var seal = layer.damaged()
                    ? Parts.state(
                            Mark.TROUBLE,
                            layer.lastCheck()
                                            .map(r -> words.count(r.items().size(), "item", "items"))
                                            .orElse("") + " damaged")
                    : layer.sound()
                            ? Parts.state(
                                    Mark.DONE,
                                    "checked "
                                            + words.moment(
                                                    layer.lastCheck().get().at(), desk.now()))
                            : Parts.state(Mark.NEVER, "never checked");
            var row = new HBox(
                    column(70, "Layer " + record.number()),
                    column(150, words.moment(record.begun(), desk.now())),
                    column(130, words.count(record.items(), "item", "items")),
                    column(110, words.bytes(record.bytes())),
                    column(140, "+" + words.bytes(record.freshBytes()) + " new"),
                    column(150, record.missed() == 0 ? "all saved" : words.count(record.missed()) + " not saved"),
                    seal);
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
        }

        private Label column(double width, String words) {
            var label = Parts.text(words);
            label.setMinWidth(width);
            label.setPrefWidth(width);
            return label;
        }
    }

    /** One phone with its strata. */
    private static final class PhoneCell extends ListCell<StoredPhone> {
        private final Desk desk;

        PhoneCell(Desk desk) {
            this.desk = desk;
        }

        @Override
        protected void updateItem(@Nullable StoredPhone phone, boolean empty) {
            super.updateItem(phone, empty);
            if (empty || phone == null) {
                setGraphic(null);
                return;
            }
            var words = desk.words();
            var who = new VBox(
                    2,
                    UserText.line(phone.identity().name(), "strong"),
                    Parts.text(
                            phone.identity().model() + " · " + phone.identity().serial(), "lesser"),
                    Parts.text(
                            words.count(phone.layers().size(), "layer", "layers") + ", "
                                    + words.bytes(phone.storedBytes()) + " stored",
                            "lesser"));
            who.setAlignment(Pos.CENTER_LEFT);
            who.setMinWidth(230);
            who.setMaxWidth(230);
            var strata = new Strata(phone.layers());
            HBox.setHgrow(strata, Priority.ALWAYS);
            var newest = new VBox(
                    2,
                    Parts.text("newest", "lesser"),
                    Parts.text(words.moment(phone.newest().begun(), desk.now())));
            newest.setAlignment(Pos.CENTER_LEFT);
            newest.setMinWidth(170);
            var row = new HBox(14, who, strata, newest);
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
            setAccessibleText(phone.identity().name());
        }
    }
}
