package app.custodex.shots;

import app.custodex.app.Home;
import app.custodex.backup.Selection;
import app.custodex.base.RealDisk;
import app.custodex.desktop.App.Prepared;
import app.custodex.desktop.App.Workplace;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.map.MapPane;
import app.custodex.desktop.ui.LongList;
import app.custodex.docket.Docket;
import app.custodex.docket.Docket.Consent;
import app.custodex.docket.RouteStep;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Kind;
import app.custodex.model.Contact;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.StoredPhone.Seal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.embed.swing.SwingFXUtils;
import javafx.event.ActionEvent;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Stage;
import javax.imageio.ImageIO;

/** Goes through the demo by itself and renders every main view, some of them dark as well. */
final class Shots {
    private static final Set<String> AT_NIGHT_TOO = Set.of("reading-room");

    private final Path folder;

    Shots(Path folder) {
        this.folder = folder;
    }

    /** Takes all pictures on the given window and ends the program; the exit code tells whether it came through. */
    void take(Stage stage) {
        Thread.ofPlatform().name("shots").start(() -> {
            int code = 0;
            try {
                Files.createDirectories(folder);
                // Always the same, since it can be read in the pictures.
                var home = Path.of(System.getProperty("java.io.tmpdir")).resolve("custodex-pictures");
                new RealDisk().delete(home);
                try {
                    run(stage, home);
                } finally {
                    new RealDisk().delete(home);
                }
            } catch (Exception e) {
                e.printStackTrace();
                code = 1;
            }
            System.exit(code);
        });
    }

    private static <T> T onInterface(Callable<T> task) throws Exception {
        var future = new FutureTask<>(task);
        Platform.runLater(future);
        return future.get(60, TimeUnit.SECONDS);
    }

    private static void act(Runnable action) throws Exception {
        onInterface(() -> {
            action.run();
            return true;
        });
    }

    private static void until(String what, BooleanSupplier condition) throws Exception {
        for (int i = 0; i < 600; i++) {
            if (onInterface(condition::getAsBoolean)) {
                return;
            }
            Thread.sleep(100);
        }
        throw new IllegalStateException("waited in vain for " + what);
    }

    private static void lift(Desk desk) throws Exception {
        act(() -> desk.curtain().toggle());
        until("the curtain", () -> !desk.veil().isDown());
    }

    private void run(Stage stage, Path home) throws Exception {
        var prepared = Prepared.open(new Home(home), Optional.of(Contents.DEMO));
        var workplace = onInterface(() -> Workplace.show(stage, prepared).withHistory());
        workplace.history().orElseThrow().await();
        var desk = workplace.desk();
        var ostrel = desk.bays().getFirst();
        var pellow = desk.bays().get(1);
        var phones = workplace.drawer().orElseThrow().phones();

        until(
                "the phones",
                () -> ostrel.status().get().isPresent() && pellow.status().get().isPresent());
        act(() -> desk.writeDocket(
                ostrel,
                form(
                        "Fenna Rook",
                        "+44 7700 900 412",
                        "Moves to a new Pellow; wants her grandfather's number and voicemail kept",
                        true),
                Optional.empty()));
        act(() -> desk.writeDocket(
                pellow,
                form("Jorun Tasch", "jorun@example.org", "Screen is cracked; a copy before the repair", false),
                Optional.empty()));
        until(
                "the dockets",
                () -> pellow.docket().get().isPresent() && ostrel.docket().get().isPresent());
        tap(phones.get(1), "unlock", "maker-menu");
        until("the maker menu", () -> pellow.status().get().orElseThrow().done().size() == 2);
        act(() -> desk.show(pellow));
        picture(workplace, workplace.scene(), "check-in");

        tap(phones.getFirst(), "unlock");
        until("the question", () -> phones.getFirst().taps().stream().anyMatch(t -> t.id().equals("accept")));
        act(() -> workplace.practice().orElseThrow().toggle());
        picture(workplace, workplace.scene(), "practice-drawer");
        act(() -> workplace.practice().orElseThrow().toggle());
        tap(phones.getFirst(), "accept");
        until("the Ostrel", ostrel::ready);

        act(() -> {
            desk.show(ostrel);
            ostrel.step().set(RouteStep.BACK_UP);
        });
        until("the survey", () -> ostrel.survey().get().isPresent());
        act(() -> ostrel.selection().set(Selection.EVERYTHING.with(Kind.VIDEOS, false)));
        act(() -> ((Button) workplace.scene().lookup("#seal-open-form")).fire());
        act(() -> ((TextField) workplace.scene().lookup("#seal-passphrase")).setText("herring ladder violet"));
        picture(workplace, workplace.scene(), "backup-choice");
        act(() -> ((Button) workplace.scene().lookup("#seal-cancel")).fire());
        act(() -> ostrel.selection().set(Selection.EVERYTHING));

        phones.getFirst().slowDown(250_000);
        act(() -> {
            desk.show(ostrel);
            desk.backups().start(ostrel);
        });
        until(
                "a rate",
                () -> ostrel.progress().get().filter(p -> p.left().isPresent()).isPresent());
        picture(workplace, workplace.scene(), "backup-running");
        phones.getFirst().slowDown(PracticePhone.FULL_SPEED);
        until(
                "the layer",
                () -> ostrel.outcome().get().isPresent()
                        && !ostrel.layers().get().isEmpty());
        picture(workplace, workplace.scene(), "backup-result");

        tap(phones.getFirst(), "kitewire-here", "kitewire-write", "burrow-here", "burrow-write");

        phones.getFirst().takePhotos(8);
        backUpAgain(desk, ostrel, 2);
        tap(phones.get(1), "cable-access", "cable-mode");
        until("the question", () -> phones.get(1).taps().stream().anyMatch(t -> t.id().equals("accept")));
        tap(phones.get(1), "accept");
        until("the Pellow", pellow::ready);
        act(() -> desk.writeDocket(
                pellow,
                form("Jorun Tasch", "jorun@example.org", "Screen is cracked; a copy before the repair", true),
                Optional.empty()));
        until("consent", () -> desk.backups().canStart(pellow));
        act(() ->
                desk.backups().seal(pellow, new Passphrase("herring ladder violet 9 quarry".toCharArray()), () -> {}));
        until("the seal", () -> pellow.seal().get() == Seal.OPENED);
        backUpAgain(desk, pellow, 1);

        act(() -> desk.read(ostrel.phone().orElseThrow(), 2, false));
        until(
                "the day book",
                () -> workplace.scene().lookup("#day-book") instanceof LongList list && list.rows() > 1_000);
        picture(workplace, workplace.scene(), "curtain");
        lift(desk);
        act(() -> ((TextField) workplace.scene().lookup("#range-from")).setText("2025-11-01"));
        act(() -> ((TextField) workplace.scene().lookup("#range-until")).setText("2025-11-14"));
        act(() -> workplace.scene().lookup("#range-until").fireEvent(new ActionEvent()));
        Thread.sleep(700); // the first page is read beside
        act(() -> ((LongList) workplace.scene().lookup("#day-book")).choose(3));
        Thread.sleep(500);
        picture(workplace, workplace.scene(), "reading-room");
        act(() -> ((Button) workplace.scene().lookup("#range-whole")).fire());
        act(() -> ((Button) workplace.scene().lookup("#see-pictures")).fire());
        until("the sheet", () -> workplace.scene().lookup("#contact-sheet") != null);
        Thread.sleep(2_500); // the pictures are decoded beside
        act(() -> workplace.scene().lookup("#contact-sheet").requestFocus());
        press(workplace.scene().lookup("#contact-sheet"), KeyCode.HOME);
        Thread.sleep(1_000);
        picture(workplace, workplace.scene(), "pictures");
        act(() -> ((Button) workplace.scene().lookup("#see-pictures")).fire());
        besideTheList(workplace);
        act(() -> ((Button) workplace.scene().lookup("#see-contacts")).fire());
        until("the contacts", () -> lookup(workplace.scene(), "#contacts-count", "412 contacts"));
        act(() -> type(workplace.scene(), "lighthouse"));
        until("the found ones", () -> !lookup(workplace.scene(), "#contacts-count", "412 contacts"));
        act(() -> choose(workplace.scene(), "Halvard Rook"));
        Thread.sleep(500); // the photo is read beside
        picture(workplace, workplace.scene(), "contacts");
        act(() -> type(workplace.scene(), ""));
        act(() -> ((Button) workplace.scene().lookup("#see-contacts")).fire());
        act(() -> ((TextField) workplace.scene().lookup("#find-everywhere")).setText("lighthouse"));
        until(
                "what was found",
                () -> workplace.scene().lookup("#find-list") instanceof ListView<?> list
                        && list.getItems().size() > 20);
        Thread.sleep(3_000); // older layers are opened beside
        picture(workplace, workplace.scene(), "find");
        goneSince(workplace);
        act(() -> desk.read(ostrel.phone().orElseThrow(), 2, true));
        until(
                "the preview",
                () -> workplace.scene().lookup("#extract-preview-text") instanceof TextArea text
                        && !text.getText().isEmpty());
        picture(workplace, workplace.scene(), "extract");

        act(() -> desk.place().set(Desk.Place.STRONGROOM));
        picture(workplace, workplace.scene(), "strongroom");
        damaged(workplace, home);
        loft(workplace);
        onInterface(() -> {
            workplace.close();
            return true;
        });
    }

    /** What the strongroom says of files that are gone or changed, before they are mended. */
    private void damaged(Workplace workplace, Path home) throws Exception {
        try (var files = Files.walk(home.resolve("strongroom/objects"))) {
            Files.delete(files.filter(file -> file.endsWith("0=ocfl_object_1.1"))
                    .findFirst()
                    .orElseThrow());
        }
        try (var files = Files.walk(home.resolve("strongroom/seals"))) {
            Files.writeString(
                    files.filter(file -> file.endsWith("key.age")).findFirst().orElseThrow(), "torn");
        }
        act(() -> ((Button) workplace.scene().lookup("#strongroom-layers")).fire());
        act(() -> workplace.desk().refreshHoldings());
        until("the damage", () -> workplace.desk().holdings().get().problems().size() == 2);
        picture(workplace, workplace.scene(), "strongroom-damaged");
        act(() -> ((Button) workplace.scene().lookup("#strongroom-mend")).fire());
        until("the mending", () -> workplace.desk().holdings().get().problems().isEmpty());
    }

    /** The remote account's bay, from its address to the copies that it holds, and all sources of the bench. */
    private void loft(Workplace workplace) throws Exception {
        var desk = workplace.desk();
        var loft = workplace.drawer().orElseThrow().loft();
        act(() -> desk.addSource("loft:" + loft.address(), "Jorun's Loft", () -> {}));
        until("the Loft", () -> workplace.scene().lookup("#loft-account") != null);
        act(() -> ((TextField) workplace.scene().lookup("#loft-account")).setText(loft.account()));
        act(() -> ((Button) workplace.scene().lookup("#loft-sign-in")).fire());
        until("the code", () -> workplace.scene().lookup("#loft-code") != null);
        act(() -> ((TextField) workplace.scene().lookup("#loft-code"))
                .setText(loft.message().orElseThrow()));
        act(() -> ((Button) workplace.scene().lookup("#loft-enter-code")).fire());
        until("the copies", () -> workplace.scene().lookup("#copy-phone-2024") != null);
        picture(workplace, workplace.scene(), "loft");
        act(() -> desk.place().set(Desk.Place.SOURCES));
        picture(workplace, workplace.scene(), "sources");
    }

    /** The map, and what is there twice. */
    private void besideTheList(Workplace workplace) throws Exception {
        act(() -> ((Button) workplace.scene().lookup("#places-open")).fire());
        until(
                "the map",
                () -> workplace.scene().lookup("#map") instanceof MapPane map
                        && map.clusters().size() > 2);
        Thread.sleep(3_000); // the pictures are decoded beside
        picture(workplace, workplace.scene(), "places");
        act(() -> ((Button) workplace.scene().lookup("#places-close")).fire());
        act(() -> ((Button) workplace.scene().lookup("#twins-open")).fire());
        until("the twins", () -> lookup(workplace.scene(), "#twins-state", "All of it was compared."));
        act(() -> ((Button) workplace.scene().lookup("#twins-0")).fire());
        picture(workplace, workplace.scene(), "twins");
        act(() -> ((Button) workplace.scene().lookup("#twins-close")).fire());
    }

    /** Two layers of a phone that was here before, with what an islander changed in between. */
    private void goneSince(Workplace workplace) throws Exception {
        var desk = workplace.desk();
        var phone = onInterface(() -> desk.holdings().get().phones().stream()
                .map(stored -> stored.identity())
                .filter(identity -> identity.name().startsWith("Sunniva"))
                .findFirst()
                .orElseThrow());
        act(() -> desk.compare(new Desk.Compared(phone, 2, 3)));
        until(
                "the comparison",
                () -> workplace.scene().lookup("#gone-list") instanceof LongList list && list.rows() > 0);
        lift(desk);
        act(() -> ((LongList) workplace.scene().lookup("#gone-list")).choose(0));
        Thread.sleep(700); // what it says is read beside
        picture(workplace, workplace.scene(), "gone-since");
        act(() -> desk.show(desk.bays().getFirst()));
        lift(desk);
    }

    private static void backUpAgain(Desk desk, BayModel bay, int layer) throws Exception {
        act(() -> desk.backups().start(bay));
        until(
                "layer " + layer,
                () -> bay.outcome().get().isPresent()
                        && bay.layers().get().size() == layer
                        && bay.layers().get().getLast().lastCheck().isPresent());
    }

    private static Docket.Form form(String customer, String reach, String reason, boolean consent) {
        return new Docket.Form(
                customer,
                reach,
                reason,
                consent
                        ? Optional.of(new Consent(Instant.now(), "Copy and read what the reason asks for"))
                        : Optional.empty(),
                Optional.of(LocalDate.now().atTime(16, 0)));
    }

    private static void tap(PracticePhone phone, String... ids) {
        for (var id : ids) {
            phone.taps().stream().filter(t -> t.id().equals(id)).findFirst().ifPresent(phone::tap);
        }
    }

    private static boolean lookup(Scene scene, String id, String text) {
        return scene.lookup(id) instanceof Label label && label.getText().equals(text);
    }

    private static void press(Node node, KeyCode key) throws Exception {
        act(() -> node.fireEvent(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", key, false, false, false, false)));
    }

    private static void type(Scene scene, String words) {
        ((TextField) scene.lookup("#contacts-find")).setText(words);
    }

    private static void choose(Scene scene, String title) {
        if (scene.lookup("#contacts") instanceof ListView<?> list) {
            for (int i = 0; i < list.getItems().size(); i++) {
                if (list.getItems().get(i) instanceof Contact contact
                        && contact.title().equals(title)) {
                    list.getSelectionModel().select(i);
                }
            }
        }
    }

    /** Light, and for some views dark as well. */
    private void picture(Workplace workplace, Scene scene, String name) throws Exception {
        for (boolean night : AT_NIGHT_TOO.contains(name) ? new boolean[] {false, true} : new boolean[] {false}) {
            act(() -> {
                workplace.night(night);
                if (scene != workplace.scene()) {
                    scene.getRoot().getStyleClass().remove("night");
                    if (night) {
                        scene.getRoot().getStyleClass().add("night");
                    }
                }
            });
            Thread.sleep(500); // two pulses and the next tick, so that nothing is drawn half-way
            save(scene, name + (night ? "-night" : "") + ".png");
        }
        act(() -> workplace.night(false));
    }

    private void save(Scene scene, String name) throws Exception {
        var image = onInterface(() -> SwingFXUtils.fromFXImage(scene.snapshot(null), null));
        if (!ImageIO.write(image, "png", folder.resolve(name).toFile())) {
            throw new IOException("this Java writes no PNG");
        }
    }
}
