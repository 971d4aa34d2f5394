package app.custodex.desktop.reading;

import app.custodex.catalogue.Trait;
import app.custodex.catalogue.Trait.Aspect;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import java.util.HashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;

/** Narrows a list of one kind to what some of its things have: missed calls, a calendar, contacts with a number. */
final class OnlyMenu extends MenuButton {
    private final Desk desk;
    private final Supplier<RoomModel.Asked> asked;
    private final Consumer<Set<Trait>> chosen;

    /**
     * @param traits how many of the things that are looked at have each
     * @param chosen is told to what the list is to be narrowed
     */
    OnlyMenu(
            Desk desk,
            Supplier<Map<Trait, Integer>> traits,
            Supplier<RoomModel.Asked> asked,
            Consumer<Set<Trait>> chosen) {
        super("Only…");
        this.desk = desk;
        this.asked = asked;
        this.chosen = chosen;
        setId("room-only");
        getStyleClass().add("small-menu");
        setMinWidth(USE_PREF_SIZE);
        setAccessibleText("Show only some of these");
        getItems().setAll(new MenuItem("")); // a menu without entries is not opened, and its entries are made then
        setOnShowing(event -> fill(traits.get()));
    }

    private void fill(Map<Trait, Integer> traits) {
        getItems().clear();
        for (var aspect : Aspect.values()) {
            var values = traits.entrySet().stream()
                    .filter(entry -> entry.getKey().aspect() == aspect)
                    .toList();
            // What all of them have narrows nothing.
            int things = traits.entrySet().stream()
                    .filter(entry -> entry.getKey().aspect() == Aspect.KIND)
                    .mapToInt(Map.Entry::getValue)
                    .sum();
            if (values.stream().anyMatch(entry -> entry.getValue() < things)) {
                if (!getItems().isEmpty()) {
                    getItems().add(new SeparatorMenuItem());
                }
                getItems().add(heading(aspect));
                values.forEach(entry -> getItems().add(item(entry.getKey(), entry.getValue())));
            }
        }
        if (getItems().isEmpty()) {
            getItems().add(heading("There is nothing to narrow these by"));
        }
    }

    private static MenuItem heading(Aspect aspect) {
        return heading(aspect.label());
    }

    private static MenuItem heading(String words) {
        var item = new CustomMenuItem(Parts.text(words, "lesser"), false);
        item.setDisable(true);
        item.getStyleClass().add("menu-heading");
        return item;
    }

    private MenuItem item(Trait trait, int count) {
        var item = new CheckMenuItem();
        item.setId("only-" + trait.value().toLowerCase(desk.words().locale()).replaceAll("[^a-z0-9]+", "-"));
        var value = trait.aspect().isPrivate() ? desk.veil().line(value(trait)) : UserText.line(value(trait));
        var row = new HBox(10, value, Parts.text(desk.words().count(count), "lesser"));
        row.setAlignment(Pos.CENTER_LEFT);
        item.setGraphic(row);
        item.setSelected(asked.get().only().contains(trait));
        item.setOnAction(event -> {
            var only = new HashSet<>(asked.get().only());
            if (!only.remove(trait)) {
                only.add(trait);
            }
            chosen.accept(only);
        });
        return item;
    }

    /** What to call it, so that it can be told without its aspect. */
    static String value(Trait trait) {
        return trait.aspect() == Aspect.WITH ? "With " + trait.value().toLowerCase(Locale.ROOT) : trait.value();
    }
}
