package app.custodex.desktop.strongroom;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.strongroom.StoredPhone;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** One phone with its strata. */
final class PhoneCell extends ListCell<StoredPhone> {
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
        var identity = phone.identity();
        var facts = Stream.of(identity.model(), identity.serial())
                .filter(fact -> !fact.isBlank())
                .collect(Collectors.joining(" · "));
        var who = new VBox(
                2,
                UserText.line(identity.name(), "strong"),
                Parts.text(facts, "lesser"),
                Parts.text(
                        words.count(phone.layers().size(), "layer", "layers") + ", " + words.bytes(phone.storedBytes())
                                + " stored",
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
        switch (phone.seal()) {
            case NONE -> {}
            case CLOSED -> newest.getChildren().add(Parts.text("sealed", "strong"));
            case OPENED -> newest.getChildren().add(Parts.text("sealed, opened here", "strong"));
        }
        newest.setAlignment(Pos.CENTER_LEFT);
        newest.setMinWidth(170);
        var row = new HBox(14, who, strata, newest);
        row.setAlignment(Pos.CENTER_LEFT);
        setGraphic(row);
        setAccessibleText(identity.name());
    }
}
