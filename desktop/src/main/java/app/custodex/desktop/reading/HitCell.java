package app.custodex.desktop.reading;

import app.custodex.app.LiveSearch.Hit;
import app.custodex.app.LiveSearch.InLayer;
import app.custodex.app.LiveSearch.Place;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Veil;
import app.custodex.model.KindGroup;
import app.custodex.model.Thing;
import app.custodex.search.Marks;
import app.custodex.search.Marks.Mark;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Something that was found: when, with whom, what was found in it, and where it is. */
final class HitCell extends ListCell<Hit> {
    /** Of a long text, so much stands before the first word that was found. */
    private static final int BEFORE = 30;

    private final Desk desk;
    private final Supplier<Marks> marks;
    private final Map<Place, InLayer> layers;
    /** Its own: the curtain may be lifted for one phone of several. */
    private final Veil veil = new Veil();

    private final Label when = Parts.text("", "lesser", "mono");
    private final UserText who = veil.line("", "strong");
    private final Label kind = Parts.text("", "lesser");
    private final UserText what = veil.line("");
    private final Label where = Parts.text("", "lesser");
    private final Region rail = new Region();
    private final HBox all;

    /**
     * @param marks of the words that are looked for
     * @param layers those that were searched
     */
    HitCell(Desk desk, Supplier<Marks> marks, Map<Place, InLayer> layers) {
        this.desk = desk;
        this.marks = marks;
        this.layers = layers;
        when.setMinWidth(Region.USE_PREF_SIZE);
        kind.setMinWidth(Region.USE_PREF_SIZE);
        var head = new HBox(10, when, who, kind);
        head.setAlignment(Pos.CENTER_LEFT);
        head.setMinWidth(0);
        var lines = new VBox(2, head, what, where);
        lines.setMinWidth(0);
        lines.setAlignment(Pos.CENTER_LEFT);
        rail.setMinWidth(2);
        rail.setMaxWidth(2);
        all = new HBox(9, rail, lines);
        all.setMinWidth(0);
        setPrefWidth(0);
    }

    @Override
    protected void updateItem(@Nullable Hit hit, boolean empty) {
        super.updateItem(hit, empty);
        var in = empty || hit == null
                ? Optional.<InLayer>empty()
                : Optional.ofNullable(layers.get(hit.in().getFirst()));
        if (hit == null || in.isEmpty()) {
            setGraphic(null);
            return;
        }
        var open = in.get().open();
        veil.set(!desk.curtain().isLiftedFor(open.phone()));
        var thing = hit.entry().thing();
        var words = new ThingWords(open.names());
        words.show(thing, who, what, found(thing, words.what(thing)), marks.get()::in);
        when.setText(thing.moment()
                .map(moment -> desk.words().when(moment, open.phone().timeZone()))
                .orElse("no date"));
        kind.setText(thing.kind().code());
        rail.getStyleClass().setAll("tint", "tint-" + KindGroup.of(thing.kind()).code());
        where.setText(open.phone().name() + " · "
                + hit.in().stream()
                        .map(place -> String.valueOf(place.layer()))
                        .collect(Collectors.joining(", ", hit.in().size() == 1 ? "layer " : "layers ", "")));
        setAccessibleText(String.join(
                ", ",
                when.getText(),
                who.getAccessibleText(),
                kind.getText(),
                what.getAccessibleText(),
                where.getText()));
        setGraphic(all);
    }

    /** The text in which it was found, from shortly before that. */
    private String found(Thing thing, String first) {
        var found = new Object() {
            Optional<String> text = marks.get().in(first).isEmpty() ? Optional.empty() : Optional.of(first);
        };
        thing.texts(text -> {
            if (found.text.isEmpty() && !marks.get().in(text).isEmpty()) {
                found.text = Optional.of(text);
            }
        });
        return found.text.map(text -> cut(text, marks.get().in(text))).orElse(first);
    }

    private static String cut(String text, List<Mark> at) {
        int first = at.getFirst().from();
        if (first <= 2 * BEFORE) {
            return text;
        }
        int space = text.indexOf(' ', first - BEFORE);
        int from = space >= 0 && space < first ? space + 1 : first;
        return "…" + text.substring(from);
    }
}
