package app.custodex.desktop.reading;

import app.custodex.catalogue.Spine.View;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Words;
import app.custodex.model.KindGroup;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/** The legend of the time river, and how kinds are chosen: a click shows one alone, with Ctrl more than one, and none is all. */
final class KindStrip extends FlowPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Words words;
    private final Map<KindGroup, Tab> tabs = new EnumMap<>(KindGroup.class);
    private Set<KindGroup> chosen = Set.of();

    /** @param choose is told which are chosen */
    KindStrip(Words words, Consumer<Set<KindGroup>> choose) {
        super(6, 6);
        this.words = words;
        setId("kinds");
        for (var group : KindGroup.values()) {
            tabs.put(group, new Tab(group, choose));
        }
    }

    /** Shows the kinds that a layer has; those without any are no choice. */
    void show(Optional<RoomModel.Room> room) {
        getChildren().clear();
        room.ifPresent(this::fill);
    }

    private void fill(RoomModel.Room room) {
        var counts = room.spine().see(View.EVERYTHING);
        tabs.forEach((group, tab) -> {
            // Without contacts, their place says which layer has them.
            if (group == KindGroup.CONTACTS || group.kinds().stream().anyMatch(kind -> counts.of(kind) > 0)) {
                getChildren().add(tab);
            }
        });
    }

    void show(RoomModel.Answer answer) {
        chosen = answer.asked().groups();
        tabs.forEach((group, tab) -> tab.show(
                group.kinds().stream().mapToInt(kind -> answer.seen().of(kind)).sum(),
                group.kinds().stream()
                        .mapToLong(kind -> answer.seen().bytesOf(kind))
                        .sum(),
                chosen));
    }

    private Set<KindGroup> with(KindGroup group, boolean more) {
        var now = chosen.isEmpty() ? EnumSet.noneOf(KindGroup.class) : EnumSet.copyOf(chosen);
        if (more) {
            if (!now.remove(group)) {
                now.add(group);
            }
            return now;
        }
        return now.equals(Set.of(group)) ? Set.of() : Set.of(group);
    }

    private final class Tab extends Button {
        private final KindGroup group;
        private final Label figure = Parts.text("", "lesser");
        private final Tooltip size = new Tooltip();

        Tab(KindGroup group, Consumer<Set<KindGroup>> choose) {
            this.group = group;
            setId("see-" + group.code());
            getStyleClass().addAll("kind-tab", "tint-line-" + group.code());
            var row = new HBox(6, Parts.text(group.label()), figure);
            row.setAlignment(Pos.CENTER_LEFT);
            setGraphic(row);
            setMinWidth(USE_PREF_SIZE);
            setOnAction(event -> choose.accept(with(group, false)));
            // A button itself takes no notice of a click or key with Ctrl.
            setOnMouseClicked(event -> {
                if (event.isShortcutDown()) {
                    choose.accept(with(group, true));
                }
            });
            setOnKeyPressed(event -> {
                if (event.isShortcutDown() && (event.getCode() == KeyCode.SPACE || event.getCode() == KeyCode.ENTER)) {
                    choose.accept(with(group, true));
                    event.consume();
                }
            });
        }

        void show(int count, long bytes, Set<KindGroup> all) {
            figure.setText(words.count(count));
            size.setText(bytes == 0 ? "" : words.bytes(bytes));
            setTooltip(bytes == 0 ? null : size);
            pseudoClassStateChanged(PRESENT, all.contains(group));
            setAccessibleText(group.label() + ", " + words.count(count) + (bytes == 0 ? "" : ", " + words.bytes(bytes))
                    + (all.contains(group) ? ", chosen" : ""));
        }
    }
}
