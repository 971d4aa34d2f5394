package app.custodex.desktop.reading;

import app.custodex.catalogue.Trait;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import java.util.HashSet;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;

/** What is asked for beyond time, kinds and words, each to be taken away again. */
final class AskedChips extends HBox {
    private final Desk desk;
    private final RoomModel room;

    AskedChips(Desk desk, RoomModel room) {
        super(6);
        this.desk = desk;
        this.room = room;
        setAlignment(Pos.CENTER_LEFT);
        room.answer().addListener((o, was, is) -> is.ifPresent(answer -> show(answer.asked())));
    }

    private void show(RoomModel.Asked asked) {
        getChildren().clear();
        if (asked.picked()) {
            open("chip-tray", "In the tray", asked.picked(false));
        }
        asked.person().ifPresent(who -> veiled("chip-person", who.person().name(), asked.person(Optional.empty())));
        asked.only().stream().sorted().forEach(trait -> trait(trait, asked));
        asked.conversation()
                .ifPresent(of -> veiled(
                        "chip-conversation",
                        room.room().get().orElseThrow().names().title(of.conversation()),
                        asked.conversation(Optional.empty())));
    }

    private void trait(Trait trait, RoomModel.Asked asked) {
        var without = new HashSet<>(asked.only());
        without.remove(trait);
        if (trait.aspect().isPrivate()) {
            veiled("chip-only", OnlyMenu.value(trait), asked.only(without));
        } else {
            open("chip-only", OnlyMenu.value(trait), asked.only(without));
        }
    }

    /** In words of our own. */
    private void open(String id, String name, RoomModel.Asked without) {
        add(id, UserText.line(name), without).setAccessibleText("No longer only " + name);
    }

    /** In words of the phone's owner. */
    private void veiled(String id, String name, RoomModel.Asked without) {
        add(id, desk.veil().line(name), without)
                .accessibleTextProperty()
                .bind(Bindings.createStringBinding(
                        () -> "No longer only " + desk.veil().words(name),
                        desk.veil().down()));
    }

    private Button add(String id, UserText words, RoomModel.Asked without) {
        words.setMaxWidth(160);
        var button = Parts.button(id, "×", "", () -> room.ask(without), "row-button");
        button.setGraphic(words);
        getChildren().add(button);
        return button;
    }
}
