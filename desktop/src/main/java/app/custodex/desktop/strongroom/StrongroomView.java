package app.custodex.desktop.strongroom;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.strongroom.StoredPhone;
import app.custodex.strongroom.Strongroom;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;

/** The strongroom: what is kept, how the backups went, and where it lies. */
public final class StrongroomView extends BorderPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Desk desk;
    private final Label summary = Parts.text("", "lesser");
    private final List<Button> pages = new ArrayList<>();

    public StrongroomView(Desk desk) {
        this.desk = desk;
        setId("strongroom");
        getStyleClass().add("place-ground");
        summary.setId("strongroom-summary");
        summary.setMinWidth(0);
        var kept = new LayersPane(desk);
        var head = new HBox(
                14,
                Parts.text("Strongroom", "title"),
                summary,
                Parts.gap(),
                page("strongroom-layers", "Phones and layers", () -> kept),
                page("strongroom-runs", "Results", () -> new RunsPane(desk)),
                page("strongroom-place", "Where and when", () -> new PlacePane(desk)));
        head.setAlignment(Pos.BASELINE_LEFT);
        head.setStyle("-fx-padding: 0 0 12 0;");
        setTop(head);
        pages.getFirst().fire();
        desk.holdings().addListener((o, was, is) -> show(is));
        show(desk.holdings().get());
    }

    private Button page(String id, String words, Supplier<Node> content) {
        var button = Parts.button(id, words, "", () -> {}, "place");
        button.setOnAction(event -> {
            pages.forEach(other -> other.pseudoClassStateChanged(PRESENT, other == button));
            setCenter(content.get());
        });
        pages.add(button);
        return button;
    }

    private void show(Strongroom.Holdings holdings) {
        long stored =
                holdings.phones().stream().mapToLong(StoredPhone::storedBytes).sum();
        long count = holdings.phones().stream()
                .mapToLong(phone -> phone.layers().size())
                .sum();
        var words = desk.words();
        summary.setText(words.count(holdings.phones().size(), "phone", "phones") + ", "
                + words.count(count, "layer", "layers") + ", " + words.bytes(stored) + " · in "
                + desk.custodex().strongroomPlace());
    }
}
