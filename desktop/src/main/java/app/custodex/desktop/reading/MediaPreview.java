package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Decoded;
import app.custodex.desktop.media.Pixels;
import app.custodex.desktop.media.PlayerBar;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.Attachment;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.image.ImageView;
import javafx.scene.layout.VBox;

/** What can be seen or heard of a thing, or of what hangs on it: pictures, and recordings that are ready to play. */
final class MediaPreview extends VBox {
    /** A message with more shows its first ones; the others are among the attachments of the conversation. */
    private static final int MOST = 12;

    private static final double WIDTH = 300;
    private static final Set<ThingKind> SEEN = EnumSet.of(ThingKind.PICTURE, ThingKind.VIDEO, ThingKind.FILM);
    private static final Set<ThingKind> HEARD =
            EnumSet.of(ThingKind.TRACK, ThingKind.PODCAST, ThingKind.MEMO, ThingKind.RINGTONE);

    private final Desk desk;
    private final Optional<Consumer<Entry>> large;
    private final Optional<Consumer<Entry>> cut;
    /** Space plays the first. */
    private final List<PlayerBar> players = new ArrayList<>();

    private Optional<Runnable> opening = Optional.empty();
    private Runnable ended = () -> {};
    private boolean playing;
    private int question;

    /**
     * @param large shows a picture or video large; empty where there is no such place
     * @param cut shows a recording to cut a tone out of it; empty where there is no such place
     */
    MediaPreview(Desk desk, Optional<Consumer<Entry>> large, Optional<Consumer<Entry>> cut) {
        super(8);
        this.desk = desk;
        this.large = large;
        this.cut = cut;
        setId("media-preview");
        clear();
    }

    /** @param then is run when a recording came to its end by itself */
    void whenEnded(Runnable then) {
        ended = then;
    }

    /** Shows nothing, and stops what plays. */
    void clear() {
        question++;
        players.forEach(PlayerBar::close);
        players.clear();
        opening = Optional.empty();
        getChildren().clear();
        setVisible(false);
        setManaged(false);
    }

    void show(OpenPhone phone, Entry entry) {
        clear();
        var thing = entry.thing();
        seen(thing).forEach(item -> showPicture(phone, item));
        if (thing instanceof MediaFile file && SEEN.contains(file.kind())) {
            opening = large.map(opener -> () -> opener.accept(entry));
            var words = file.kind() == ThingKind.PICTURE ? "Show large" : "Play";
            opening.ifPresent(open -> getChildren().add(Parts.button("media-large", words, "Enter", open)));
        }
        heard(thing).forEach(item -> offerToPlay(phone, item, length(thing)));
        boolean canBeCut = thing instanceof MediaFile file
                ? HEARD.contains(file.kind())
                : thing instanceof Voicemail && !players.isEmpty();
        if (canBeCut) {
            cut.ifPresent(opener -> getChildren()
                    .add(Parts.button("media-cut", "Cut a tone…", "", () -> opener.accept(entry), "row-button")));
        }
        if (playing) {
            playing = false;
            first().ifPresent(PlayerBar::play);
        }
        setVisible(!getChildren().isEmpty());
        setManaged(isVisible());
    }

    /**
     * Shows a file.
     *
     * @param picture whether it is one, or a video; else it is a recording
     */
    void show(OpenPhone phone, String item, boolean picture) {
        clear();
        if (picture) {
            showPicture(phone, item);
        } else {
            offerToPlay(phone, item, Optional.empty());
        }
        setVisible(true);
        setManaged(true);
    }

    private Optional<PlayerBar> first() {
        return players.stream().findFirst();
    }

    private static List<String> seen(Thing thing) {
        return thing instanceof MediaFile file && SEEN.contains(file.kind())
                ? List.of(file.id().item())
                : attached(thing, "image/", "video/");
    }

    private static List<String> heard(Thing thing) {
        return switch (thing) {
            case MediaFile file
            when HEARD.contains(file.kind()) -> List.of(file.id().item());
            case Voicemail voicemail
            when voicemail.sound().there() -> List.of(voicemail.sound().item());
            default -> attached(thing, "audio/");
        };
    }

    /** What hangs on it, in its order. */
    private static List<String> attached(Thing thing, String... types) {
        return thing.attachments().stream()
                .filter(any -> any.there() && Stream.of(types).anyMatch(any.type()::startsWith))
                .map(Attachment::item)
                .limit(MOST)
                .toList();
    }

    private static Optional<Duration> length(Thing thing) {
        return switch (thing) {
            case MediaFile file -> file.length();
            case Voicemail voicemail -> Optional.of(voicemail.length());
            default -> Optional.empty();
        };
    }

    private void offerToPlay(OpenPhone phone, String item, Optional<Duration> length) {
        var bar = new PlayerBar(desk.work(), desk.veil(), () -> phone.media(item), ThingWords::length, length, false);
        bar.whenEnded(ended);
        players.add(bar);
        getChildren().add(bar);
    }

    /** Plays, or stops; false where there is nothing to play. */
    boolean togglePlaying() {
        first().ifPresent(PlayerBar::toggle);
        return first().isPresent();
    }

    /** Plays what is shown next, if it can be heard. */
    void playWhatComesNext() {
        playing = true;
    }

    /** Shows the picture or video large; false where there is none. */
    boolean openLarge() {
        opening.ifPresent(Runnable::run);
        return opening.isPresent();
    }

    private void showPicture(OpenPhone phone, String item) {
        var view = new ImageView();
        view.setFitWidth(WIDTH);
        view.setPreserveRatio(true);
        view.setAccessibleText("Picture");
        desk.veil().picture(view);
        getChildren().add(view);
        int mine = question;
        desk.work().start("A picture", () -> Decoded.of(phone.media(item), (int) (2 * WIDTH)), decoded -> {
            if (mine == question) {
                take(view, decoded);
            }
        });
    }

    private void take(ImageView view, Decoded decoded) {
        decoded.picture()
                .ifPresentOrElse(
                        picture -> {
                            view.setImage(Pixels.image(picture));
                            view.setFitWidth(Math.min(WIDTH, picture.width()));
                            if (picture.damaged()) {
                                getChildren()
                                        .add(
                                                getChildren().indexOf(view) + 1,
                                                Parts.sentence("A part of this picture is damaged.", "lesser"));
                            }
                        },
                        () -> getChildren().set(getChildren().indexOf(view), Parts.sentence(decoded.why(), "lesser")));
    }
}
