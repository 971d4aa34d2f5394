package app.custodex.desktop.bench;

import app.custodex.app.Mandate;
import app.custodex.backup.Survey.Found;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** A look at one item while it is still on the phone: a small picture, or the first lines of a text. */
final class ItemPreview extends VBox {
    private static final Set<String> PICTURES = Set.of(".jpg", ".jpeg", ".png", ".gif");
    private static final Set<String> TEXTS = Set.of(".txt", ".vcf", ".ics", ".md", ".csv", ".json", ".html");
    private static final int LARGEST_PICTURE = 20_000_000;
    private static final int LINES = 1_200;
    private static final double HEIGHT = 150;

    private final Desk desk;
    private final BayModel bay;
    private int asked;

    ItemPreview(Desk desk, BayModel bay) {
        super(6);
        this.desk = desk;
        this.bay = bay;
        setId("item-preview");
        setMinHeight(HEIGHT + 24);
    }

    void show(@Nullable Found found) {
        getChildren().clear();
        if (found == null) {
            return;
        }
        var file = found.file();
        getChildren()
                .add(Parts.sentence(
                        "Changed " + desk.words().moment(file.modified(), desk.now()) + " · "
                                + desk.words().bytes(file.size()),
                        "lesser"));
        int question = ++asked;
        var ending = file.path().ending();
        if (PICTURES.contains(ending) && file.size() <= LARGEST_PICTURE) {
            desk.work().start("An item of the phone", () -> read(found, LARGEST_PICTURE), bytes -> {
                if (question == asked) {
                    getChildren().add(picture(bytes));
                }
            });
        } else if (TEXTS.contains(ending)) {
            desk.work().start("An item of the phone", () -> read(found, LINES), bytes -> {
                if (question == asked) {
                    getChildren().add(desk.veil().paragraph(new String(bytes, StandardCharsets.UTF_8), "lesser"));
                }
            });
        }
    }

    private byte[] read(Found found, int most) throws IOException {
        var docket = bay.docket()
                .get()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        bay.bay().source().name(),
                        "There is no docket for it, so nothing may be read",
                        "Open a docket with the customer's consent (Check in)")));
        return desk.custodex()
                .preview(
                        bay.bay(),
                        Mandate.ofDocket(docket.number()),
                        found.file().path(),
                        most);
    }

    private Node picture(byte[] bytes) {
        var image = new Image(new ByteArrayInputStream(bytes), 0, HEIGHT, true, true);
        return image.isError()
                ? Parts.sentence("This picture can't be shown.", "lesser")
                : desk.veil().picture(new ImageView(image));
    }
}
