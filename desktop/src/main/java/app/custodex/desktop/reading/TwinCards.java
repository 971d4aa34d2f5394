package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Thumbnails;
import app.custodex.desktop.reading.TwinsModel.Found;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.image.ImageView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** Files that are alike, side by side, with what tells them apart. */
final class TwinCards extends FlowPane {
    private static final double SIDE = 220;

    private final Desk desk;
    private final TrayModel tray;
    private final Thumbnails thumbnails;
    private final Map<String, ImageView> pictures = new HashMap<>();
    private final Map<Integer, Button> picks = new HashMap<>();
    private Optional<OpenPhone> phone = Optional.empty();

    TwinCards(Desk desk, TrayModel tray) {
        super(14, 14);
        this.desk = desk;
        this.tray = tray;
        thumbnails = new Thumbnails(desk.work(), this::arrived);
        tray.picked().addListener((o, was, is) -> showPicks());
    }

    /** Shows those of another layer from now on. */
    void of(Optional<OpenPhone> newPhone) {
        phone = newPhone;
        thumbnails.of(newPhone.map(open -> open::media));
        pictures.clear();
        picks.clear();
        getChildren().clear();
    }

    void show(Found found) {
        pictures.clear();
        picks.clear();
        var cards = new ArrayList<VBox>();
        for (int i = 0; i < found.things().size(); i++) {
            cards.add(card(found.set().numbers().get(i), found.things().get(i)));
        }
        getChildren().setAll(cards);
        arrived();
        showPicks();
    }

    private VBox card(int number, Thing thing) {
        var card = new VBox(4);
        card.setMinWidth(SIDE);
        card.setMaxWidth(SIDE);
        if (thing.kind() == ThingKind.PICTURE || thing.kind() == ThingKind.VIDEO) {
            var picture = desk.veil().picture(new ImageView());
            picture.setFitWidth(SIDE);
            picture.setFitHeight(SIDE);
            picture.setPreserveRatio(true);
            pictures.put(thing.id().item(), picture);
            var frame = new StackPane(picture);
            frame.setMinHeight(SIDE);
            frame.setMaxHeight(SIDE);
            frame.setAlignment(Pos.CENTER);
            frame.getStyleClass().add("full-ground");
            card.getChildren().add(frame);
        }
        var pick = Parts.button("twin-pick-" + number, "", "", () -> tray.toggle(number), "row-button");
        picks.put(number, pick);
        card.getChildren().add(desk.veil().paragraph(thing.title()));
        facts(thing).forEach(fact -> card.getChildren().add(Parts.sentence(fact, "lesser")));
        card.getChildren().addAll(desk.veil().paragraph(thing.id().item(), "lesser"), pick);
        return card;
    }

    /** What tells one from the other. */
    private List<String> facts(Thing thing) {
        var zone = phone.map(open -> open.phone().timeZone()).orElse(ZoneId.of("UTC"));
        var common = Stream.of(
                thing.moment().map(moment -> desk.words().when(moment, zone)),
                Optional.of(desk.words().bytes(thing.bytes())));
        var own = thing instanceof MediaFile file
                ? Stream.of(
                        file.length().map(ThingWords::length),
                        file.fact("Size"),
                        file.fact("Camera"),
                        file.fact("Bit rate"),
                        file.place().map(ThingWords::place))
                : Stream.<Optional<String>>empty();
        return Stream.concat(common, own).flatMap(Optional::stream).toList();
    }

    private void arrived() {
        pictures.forEach((item, view) -> thumbnails.get(item).ifPresent(view::setImage));
        thumbnails.inSight(pictures.keySet()); // what was asked for just now is begun
    }

    private void showPicks() {
        picks.forEach((number, pick) -> pick.setText(tray.has(number) ? "Take out of tray" : "Put in tray"));
    }
}
