package app.custodex.desktop.strongroom;

import app.custodex.desktop.bench.ChangeList;
import app.custodex.desktop.bench.UnlockPane;
import app.custodex.desktop.desk.CheckDesk.Running;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.KeptLayer;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredPhone;
import app.custodex.strongroom.StoredPhone.Seal;
import app.custodex.strongroom.Strongroom;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Every phone that is kept, its layers as strata, and the layers of the one that is chosen. */
final class LayersPane extends VBox {
    private static final int MOST_DAMAGE = 3;

    private final Desk desk;
    private final ListView<StoredPhone> phones = new ListView<>();
    private final ListView<KeptLayer> layers = new ListView<>();
    private final Label chosen = Parts.text("", "heading");
    private final Label progress = Parts.text("", "lesser");
    private final Button read;
    private final Button check;
    private final Button checkAll;
    private final Button changes;
    private final Button stop;
    private final VBox more = new VBox(6);

    LayersPane(Desk desk) {
        super(12);
        this.desk = desk;
        read = Parts.button("layer-read", "Read layer", "Enter", this::read, "main");
        check = Parts.button("layer-check", "Check layer", "", this::check);
        checkAll = Parts.button(
                "check-all",
                "Check everything",
                "",
                () -> desk.checks().checkAll(desk.holdings().get().phones()));
        changes = Parts.button("layer-changes", "What changed", "", this::showChanges);
        stop = Parts.button(
                "layer-check-stop", "Stop checking", "", () -> desk.checks().stop());
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
        layers.setPrefHeight(170);
        layers.setMinHeight(100);
        layers.getStyleClass().add("pane-border");
        layers.setCellFactory(view -> new LayerCell());
        layers.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> refresh());
        layers.setOnMouseClicked(event -> {
            if (event.getClickCount() == 2) {
                read();
            }
        });
        layers.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER) {
                read();
            }
        });
        chosen.setMinWidth(0);
        var actions = new HBox(10, chosen, progress, Parts.gap(), stop, checkAll, changes, check, read);
        actions.setAlignment(Pos.CENTER_LEFT);
        progress.setId("check-progress");
        getChildren().addAll(new TroubleCard(desk), phones, actions, layers, more);
        desk.holdings().addListener((o, was, is) -> show(is));
        desk.checks().running().addListener((o, was, is) -> showChecking(is));
        desk.checks().verdict().addListener((o, was, is) -> progress.setText(is));
        show(desk.holdings().get());
        showChecking(desk.checks().running().get());
        refresh();
    }

    private void show(Strongroom.Holdings holdings) {
        var identifier = phone().map(phone -> phone.identity().identifier());
        phones.setItems(FXCollections.observableList(holdings.phones()));
        identifier
                .flatMap(holdings::phone)
                .ifPresentOrElse(
                        phone -> phones.getSelectionModel().select(phone),
                        () -> phones.getSelectionModel().selectFirst());
    }

    private Optional<StoredPhone> phone() {
        return Optional.ofNullable(phones.getSelectionModel().getSelectedItem());
    }

    private Optional<KeptLayer> layer() {
        return Optional.ofNullable(layers.getSelectionModel().getSelectedItem());
    }

    private void choose(@Nullable StoredPhone phone) {
        desk.chosenInStrongroom().set(Optional.ofNullable(phone).map(StoredPhone::identity));
        if (phone == null) {
            chosen.setText("");
            layers.setItems(FXCollections.emptyObservableList());
            refresh();
            return;
        }
        chosen.setText("Layers of " + phone.identity().name());
        desk.work().start("Layers", () -> desk.layersOf(phone), found -> {
            if (phone().filter(p -> p == phone).isEmpty()) {
                return;
            }
            int before = layers.getSelectionModel().getSelectedIndex();
            boolean same = layers.getItems().size() == found.size();
            layers.setItems(FXCollections.observableList(found.reversed()));
            layers.getSelectionModel().select(same ? Math.max(0, before) : 0);
            refresh();
        });
    }

    private boolean closed() {
        return phone().filter(p -> p.seal() == Seal.CLOSED).isPresent();
    }

    private void refresh() {
        boolean checking = desk.checks().running().get().isPresent();
        read.setDisable(layer().isEmpty() || closed());
        changes.setDisable(layer().isEmpty() || closed());
        check.setDisable(layer().isEmpty() || checking);
        checkAll.setDisable(phones.getItems().isEmpty() || checking);
        more.getChildren().clear();
        if (closed()) {
            phone().ifPresent(p -> more.getChildren().add(new UnlockPane(desk, p.identity(), () -> {})));
        }
        layer().flatMap(KeptLayer::lastCheck).filter(report -> !report.sound()).ifPresent(this::tellDamage);
        layer().map(KeptLayer::record).ifPresent(this::tellLeftOut);
    }

    private void tellLeftOut(LayerRecord record) {
        var left = record.left().stream()
                .filter(l -> l.items() > 0)
                .map(l -> l.kind().label() + " (" + l.why().words().toLowerCase(java.util.Locale.ROOT) + ")")
                .toList();
        if (!left.isEmpty()) {
            more.getChildren().add(Parts.sentence("Not in it: " + String.join(", ", left), "lesser"));
        }
    }

    /** Which stored files are damaged, which items that hits, and how it is mended. */
    private void tellDamage(CheckReport report) {
        report.damage().stream()
                .limit(MOST_DAMAGE)
                .forEach(d -> more.getChildren().add(Parts.state(Mark.TROUBLE, d.sentence())));
        more.getChildren()
                .add(Parts.sentence(
                        hit(report)
                                + " With the phone ready, its next backup reads anew what is damaged and puts sound copies"
                                + " into a layer of their own.",
                        "lesser"));
        if (!report.items().isEmpty()) {
            var items = new ListView<PhonePath>(FXCollections.observableList(report.items()));
            items.setId("damaged-items");
            items.setFixedCellSize(26);
            items.setPrefHeight(Math.min(4, report.items().size()) * 26 + 2);
            items.setMinHeight(Math.min(3, report.items().size()) * 26 + 2);
            items.getStyleClass().add("pane-border");
            items.setCellFactory(view -> new ListCell<>() {
                @Override
                protected void updateItem(@Nullable PhonePath path, boolean empty) {
                    super.updateItem(path, empty);
                    setGraphic(empty || path == null ? null : desk.veil().line(path.text()));
                }
            });
            more.getChildren().add(items);
        }
    }

    private String hit(CheckReport report) {
        if (!report.items().isEmpty()) {
            return desk.words().count(report.items().size(), "item is", "items are") + " hit.";
        }
        boolean sealed = layer().filter(l -> l.record().sealed()).isPresent();
        return sealed && !report.decrypted()
                ? "Which items are hit is told by a check with the passphrase."
                : "No item is known to be damaged.";
    }

    private void read() {
        if (closed()) {
            return;
        }
        layer().map(KeptLayer::record)
                .ifPresent(record -> desk.work()
                        .start(record.phone().name(), () -> desk.hasMandate(record.phone()), has -> {
                            if (has) {
                                desk.read(record.phone(), record.number(), false);
                            } else {
                                askWhose(record);
                            }
                        }));
    }

    /** Nobody may read what belongs to a customer who was not asked. */
    private void askWhose(LayerRecord record) {
        var own = Parts.button(
                "layer-own",
                "It is the shop's own",
                "",
                () -> desk.declareOwn(record.phone(), () -> desk.read(record.phone(), record.number(), false)));
        var words = Parts.state(
                Mark.HAND,
                "No docket says whose phone it is. Open a docket for it with the customer's consent, or say that there is"
                        + " no customer.");
        var row = new HBox(12, words, own);
        row.setAlignment(Pos.CENTER_LEFT);
        more.getChildren().setAll(row);
    }

    private void check() {
        phone().ifPresent(p ->
                layer().ifPresent(l -> desk.checks().check(p, l.record().number())));
    }

    private void showChanges() {
        layer().ifPresent(l -> {
            var list = new ChangeList(desk, l.record().phone(), l.record().number());
            list.setPrefHeight(170);
            more.getChildren()
                    .setAll(
                            Parts.text(
                                    "What came, changed or went in layer "
                                            + l.record().number(),
                                    "heading"),
                            list);
        });
    }

    private void showChecking(Optional<Running> running) {
        stop.setVisible(running.isPresent());
        stop.setManaged(running.isPresent());
        running.ifPresent(r -> progress.setText(
                "reading back " + r.what() + ", " + desk.words().bytes(r.done())
                        + (r.all() > 0 ? " of " + desk.words().bytes(r.all()) : "")));
        if (running.isEmpty()) {
            choose(phones.getSelectionModel().getSelectedItem()); // what the check found
        }
        check.setDisable(layer().isEmpty() || running.isPresent());
        checkAll.setDisable(phones.getItems().isEmpty() || running.isPresent());
    }

    /** One layer on one line. */
    private final class LayerCell extends ListCell<KeptLayer> {
        @Override
        protected void updateItem(@Nullable KeptLayer layer, boolean empty) {
            super.updateItem(layer, empty);
            if (empty || layer == null) {
                setGraphic(null);
                return;
            }
            var words = desk.words();
            var record = layer.record();
            var row = new HBox(
                    column(64, "Layer " + record.number()),
                    column(150, words.moment(record.begun(), desk.now())),
                    column(110, words.count(record.items(), "item", "items")),
                    column(84, words.bytes(record.bytes())),
                    column(110, "+" + words.bytes(record.freshBytes()) + " new"),
                    column(230, change(record)),
                    column(120, record.missed() == 0 ? "all saved" : words.count(record.missed()) + " not saved"),
                    state(layer));
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
        }

        private String change(LayerRecord record) {
            var change = record.change();
            if (record.number() == 1) {
                return "the first";
            }
            var said = Stream.of(
                            part(change.added(), "added"),
                            part(change.changed(), "changed"),
                            part(change.gone(), "gone"))
                    .flatMap(Optional::stream)
                    .collect(Collectors.joining(", "));
            return said.isEmpty() ? "no change" : said;
        }

        private Optional<String> part(long count, String word) {
            return count == 0 ? Optional.empty() : Optional.of(desk.words().count(count) + " " + word);
        }

        private Node state(KeptLayer layer) {
            var words = desk.words();
            if (layer.damaged()) {
                var report = layer.lastCheck().orElseThrow();
                return Parts.state(
                        Mark.TROUBLE,
                        report.items().isEmpty()
                                ? words.count(report.damage().size(), "stored file", "stored files") + " damaged"
                                : words.count(report.items().size(), "item", "items") + " damaged");
            }
            return layer.lastCheck().isPresent()
                    ? Parts.state(
                            Mark.DONE,
                            "checked " + words.moment(layer.lastCheck().get().at(), desk.now()))
                    : Parts.state(Mark.NEVER, "never checked");
        }

        private Label column(double width, String words) {
            var label = Parts.text(words);
            label.setMinWidth(width);
            label.setPrefWidth(width);
            return label;
        }
    }
}
