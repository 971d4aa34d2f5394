package app.custodex.desktop;

import app.custodex.desktop.desk.Desk.Place;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.input.KeyCombination;

/**
 * One of the places that the window shows.
 *
 * @param within the place whose button stands for it in the top bar; its own, when it has one
 */
record Destination(Place place, Place within, Node node, Optional<Way> way) {
    /** The button and the keys that lead there. */
    record Way(String id, String title, KeyCombination keys) {}

    /** With a button of its own. */
    static Destination of(Place place, Node node, String id, String title, String keys) {
        return new Destination(place, place, node, Optional.of(new Way(id, title, KeyCombination.valueOf(keys))));
    }

    /** Reached from another place. */
    static Destination within(Place other, Place place, Node node) {
        return new Destination(place, other, node, Optional.empty());
    }
}
