package app.custodex.desktop;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.BayState;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.Desk.Place;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.docket.Docket;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.collections.ListChangeListener;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;

/** Every phone that is in work, on every screen: what it does, what it waits for. */
final class BayStrip extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Desk desk;
    /** One a bay, kept, since each follows its bay for good. */
    private final Map<BayModel, Card> cards = new HashMap<>();

    BayStrip(Desk desk) {
        this.desk = desk;
        getStyleClass().add("bay-strip");
        setAlignment(Pos.CENTER_LEFT);
        desk.bays().addListener((ListChangeListener<BayModel>) change -> show());
        show();
    }

    private void show() {
        cards.keySet().retainAll(desk.bays());
        getChildren().clear();
        for (var bay : desk.bays()) {
            getChildren().add(cards.computeIfAbsent(bay, b -> new Card(desk, b)));
        }
        var add = Parts.button(
                "add-source", "Add a source", "", () -> desk.place().set(Place.SOURCES), "bar-button");
        var box = new HBox(add);
        box.setAlignment(Pos.CENTER_LEFT);
        box.setStyle("-fx-padding: 0 12 0 12;");
        getChildren().add(box);
    }

    private static final class Card extends Button {
        private final Desk desk;
        private final BayModel bay;
        private final Rectangle outline = new Rectangle(22, 38);
        private final UserText who = UserText.line("", "strong");
        private final HBox headline = new HBox(6);
        private final Label detail = Parts.text("", "lesser");
        private final Region fill = new Region();
        private final StackPane track = new StackPane(fill);

        Card(Desk desk, BayModel bay) {
            this.desk = desk;
            this.bay = bay;
            setId("bay-" + bay.number());
            getStyleClass().add("bay");
            setMaxHeight(Double.MAX_VALUE);
            outline.setArcWidth(8);
            outline.setArcHeight(8);
            outline.getStyleClass().add("phone-outline");
            headline.setAlignment(Pos.CENTER_LEFT);
            track.getStyleClass().add("thin-track");
            track.setAlignment(Pos.CENTER_LEFT);
            fill.getStyleClass().add("thin-fill");
            var text = new VBox(1, who, headline, detail);
            text.setMinWidth(0);
            HBox.setHgrow(text, Priority.ALWAYS);
            var top = new HBox(14, outline, text);
            top.setAlignment(Pos.TOP_LEFT);
            var all = new VBox(4, top, track);
            all.prefWidthProperty().bind(widthProperty().subtract(26));
            setGraphic(all);
            setContentDisplay(javafx.scene.control.ContentDisplay.GRAPHIC_ONLY);
            setOnAction(event -> desk.show(bay));
            desk.changes().addListener((o, was, is) -> refresh());
            bay.docket().addListener((o, was, is) -> refresh());
            desk.present().addListener((o, was, is) -> refresh());
            refresh();
        }

        private void refresh() {
            var state = desk.state(bay);
            var name = bay.docket()
                    .get()
                    .map(Docket::customer)
                    .or(() -> bay.isPhone()
                            ? bay.status().get().map(s -> s.model())
                            : Optional.of(bay.bay().source().name()));
            who.setText("Bay " + bay.number()
                    + bay.docket().get().map(d -> " · " + d.label()).orElse("")
                    + name.map(n -> " · " + n).orElse(" · free"));
            Node words = state.mark().isPresent()
                    ? Parts.state(state.mark().get(), state.headline())
                    : Parts.text(state.headline(), "lesser");
            headline.getChildren().setAll(words);
            detail.setText(state.detail());
            for (var look : BayState.Look.values()) {
                outline.getStyleClass().remove(look.name().toLowerCase(Locale.ROOT));
            }
            outline.getStyleClass().add(state.look().name().toLowerCase(Locale.ROOT));
            var progress = bay.progress().get();
            track.setVisible(progress.isPresent());
            fill.maxWidthProperty().unbind();
            fill.maxWidthProperty()
                    .bind(track.widthProperty()
                            .multiply(progress.map(p -> p.share()).orElse(0.0)));
            pseudoClassStateChanged(
                    PRESENT, desk.present().get().filter(b -> b == bay).isPresent());
        }
    }
}
