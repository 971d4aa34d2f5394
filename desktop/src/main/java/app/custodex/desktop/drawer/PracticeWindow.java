package app.custodex.desktop.drawer;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Theme;
import app.custodex.drawer.PastVisit;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticePhone;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/**
 * The practice phones: their screens, and what a hand can do to them. One at a time at the side of the window, so that what the
 * bench says of it stays in sight; or all of them in a window of their own.
 */
public final class PracticeWindow {
    private static final Map<String, Long> SPEEDS = speeds();
    private static final double SIDE = 270;
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Desk desk;
    private final Stage stage = new Stage();
    private final Stage owner;
    private final HBox table = new HBox(16);
    private final Timeline look = new Timeline(new KeyFrame(javafx.util.Duration.millis(300), event -> refresh()));
    private final List<PhonePane> panes = new ArrayList<>();
    private final LoftPane loft;
    private final HBox tabs = new HBox(6);
    private final StackPane chosen = new StackPane();
    private final VBox side;

    public PracticeWindow(PracticeDrawer drawer, Desk desk, Stage owner) {
        this.desk = desk;
        this.owner = owner;
        drawer.phones().forEach(phone -> panes.add(new PhonePane(phone)));
        loft = new LoftPane(drawer.loft());
        loft.getChildren().addAll(passphrases(drawer.history()));
        side = side();
        table.getStyleClass().add("place-ground");
        var scene = new Scene(new VBox(table), 900, 720);
        Theme.dress(scene);
        scene.getAccelerators().put(javafx.scene.input.KeyCombination.valueOf("F9"), this::toggle);
        stage.setScene(scene);
        stage.setTitle("Practice drawer");
        look.setCycleCount(Animation.INDEFINITE);
        stage.setOnHidden(event -> look.stop());
        choose(0);
    }

    private VBox side() {
        panes.forEach(pane -> tabs.getChildren()
                .add(Parts.button(
                        "drawer-" + pane.phone.family().code(),
                        pane.phone.model(),
                        "",
                        () -> choose(panes.indexOf(pane)),
                        "row-button",
                        "scope")));
        tabs.getChildren()
                .add(Parts.button("drawer-loft", "Loft", "", () -> choose(panes.size()), "row-button", "scope"));
        var head = new HBox(
                6,
                Parts.text("Practice drawer", "heading"),
                Parts.gap(),
                Parts.button("drawer-window", "Own window", "", this::openWindow, "row-button"));
        head.setAlignment(Pos.CENTER_LEFT);
        var scroll = new ScrollPane(chosen);
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var all = new VBox(10, head, tabs, scroll);
        all.setId("practice-side");
        all.getStyleClass().add("practice-side");
        all.setMinWidth(SIDE);
        all.setMaxWidth(SIDE);
        all.setVisible(false);
        all.managedProperty().bind(all.visibleProperty());
        return all;
    }

    /** Brings one of them to the side: a phone by its place, the Loft behind them. */
    private void choose(int place) {
        for (int i = 0; i < tabs.getChildren().size(); i++) {
            tabs.getChildren().get(i).pseudoClassStateChanged(PRESENT, i == place);
        }
        chosen.getChildren().setAll(place < panes.size() ? panes.get(place) : loft);
    }

    /** What stands at the side of the window while the drawer is open there. */
    public Node sideNode() {
        return side;
    }

    /** What customers of earlier visits would type to open their sealed layers. */
    private static List<Node> passphrases(List<PastVisit> history) {
        var slips = new LinkedHashMap<String, Node>();
        for (var visit : history) {
            visit.passphrase()
                    .ifPresent(passphrase -> slips.computeIfAbsent(
                            visit.customer(),
                            customer -> slip("slip-past-" + slips.size(), "Passphrase of " + customer, passphrase)));
        }
        return List.copyOf(slips.values());
    }

    private static Node slip(String id, String name, String value) {
        var field = new TextField(value);
        field.setId(id);
        field.setEditable(false);
        return new VBox(2, Parts.text(name, "lesser"), field);
    }

    private static Map<String, Long> speeds() {
        var speeds = new LinkedHashMap<String, Long>();
        speeds.put("Full speed", PracticePhone.FULL_SPEED);
        speeds.put("Slow, 400 kB/s", 400_000L);
        speeds.put("Very slow, 60 kB/s", 60_000L);
        speeds.put("Stalled", PracticePhone.STALLED);
        return speeds;
    }

    /** Brings the drawer up at the side, or puts it away. */
    public void toggle() {
        if (stage.isShowing()) {
            stage.hide();
            choose(0); // they were on the table
            return;
        }
        side.setVisible(!side.isVisible());
        if (side.isVisible()) {
            if (chosen.getChildren().isEmpty()) {
                choose(0);
            }
            refresh();
            look.play();
        } else {
            look.stop();
        }
    }

    /** All of them beside each other. */
    private void openWindow() {
        side.setVisible(false);
        chosen.getChildren().clear();
        table.getChildren().setAll(panes);
        table.getChildren().add(loft);
        var root = stage.getScene().getRoot();
        root.getStyleClass().remove("night");
        if (owner.getScene().getRoot().getStyleClass().contains("night")) {
            root.getStyleClass().add("night");
        }
        refresh();
        stage.show();
        stage.toFront();
        look.play();
    }

    public void close() {
        look.stop();
        stage.hide();
    }

    private void refresh() {
        panes.forEach(PhonePane::refresh);
        loft.refresh();
    }

    private final class PhonePane extends VBox {
        private final PracticePhone phone;
        private final VBox glass = new VBox(8);
        private final Button cable;
        private List<Object> shown = List.of();

        PhonePane(PracticePhone phone) {
            this.phone = phone;
            var code = phone.family().code();
            setId("practice-" + code);
            setSpacing(10);
            glass.getStyleClass().add("glass");
            glass.setMinHeight(380);
            cable = Parts.button("cable-" + code, "", "", this::moveCable);
            cable.setMaxWidth(Double.MAX_VALUE);
            var speed = new ComboBox<String>();
            speed.setId("speed-" + code);
            speed.getItems().addAll(SPEEDS.keySet());
            speed.getSelectionModel().selectFirst();
            speed.setMaxWidth(Double.MAX_VALUE);
            speed.setOnAction(event -> phone.slowDown(SPEEDS.getOrDefault(speed.getValue(), PracticePhone.FULL_SPEED)));
            var photos = Parts.button(
                    "photos-" + code,
                    "Take 12 more photos",
                    "",
                    () -> desk.work()
                            .start(
                                    "Practice photos",
                                    () -> {
                                        phone.takePhotos(12);
                                        return phone;
                                    },
                                    taken -> refresh()));
            photos.setMaxWidth(Double.MAX_VALUE);
            getChildren()
                    .addAll(
                            Parts.text(phone.model(), "heading"),
                            Parts.text(phone.name(), "lesser"),
                            glass,
                            cable,
                            speed,
                            photos,
                            slip(phone));
            refresh();
        }

        /** What the customer wrote down for a rainy day. */
        private static Node slip(PracticePhone phone) {
            return PracticeWindow.slip(
                    "slip-" + phone.family().code(),
                    "The customer's slip of paper, Burrow key",
                    phone.burrowKey().split(" ", 2)[0]);
        }

        private void moveCable() {
            boolean in = phone.pluggedIn();
            desk.work()
                    .start(
                            "Practice cable",
                            () -> {
                                if (in) {
                                    phone.unplug();
                                } else {
                                    phone.plugIn();
                                }
                                return phone;
                            },
                            moved -> refresh());
        }

        void refresh() {
            List<Object> now = List.of(phone.screen(), phone.taps(), phone.pluggedIn());
            if (now.equals(shown)) {
                return;
            }
            shown = now;
            cable.setText(phone.pluggedIn() ? "Pull the cable" : "Plug in");
            List<Node> content = new ArrayList<>();
            for (var line : phone.screen()) {
                content.add(Parts.sentence(line, content.isEmpty() ? "strong" : "lesser"));
            }
            var gap = new Region();
            gap.setMinHeight(8);
            content.add(gap);
            for (var tap : phone.taps()) {
                var button = Parts.button("tap-" + phone.family().code() + "-" + tap.id(), tap.label(), "", () -> {
                    phone.tap(tap);
                    refresh();
                });
                button.setMinWidth(0);
                button.setMaxWidth(Double.MAX_VALUE);
                button.setWrapText(true);
                content.add(button);
            }
            glass.setAlignment(Pos.TOP_LEFT);
            glass.getChildren().setAll(content);
        }
    }
}
