package app.custodex.desktop.bench;

import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.SecretField;
import app.custodex.docket.Docket;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.PassphraseStrength;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Whether the phone's stack is sealed: making the seal before the first layer, and opening it for the next ones. */
final class SealPane extends VBox {
    private final Desk desk;
    private final BayModel bay;
    private List<Object> shown = List.of();

    SealPane(Desk desk, BayModel bay) {
        super(6);
        this.desk = desk;
        this.bay = bay;
        setId("seal");
    }

    void refresh() {
        List<Object> now = List.of(
                bay.seal().get(), bay.layers().get().isEmpty(), bay.phone().map(PhoneIdentity::identifier));
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        getChildren().setAll(Parts.text("Seal", "heading"));
        boolean first = bay.layers().get().isEmpty();
        if (bay.phone().isEmpty()) {
            getChildren().add(Parts.sentence("Told when the phone is ready.", "lesser"));
            return;
        }
        var phone = bay.phone().get();
        switch (bay.seal().get()) {
            case NONE -> {
                if (first) {
                    offer();
                } else {
                    getChildren()
                            .add(Parts.sentence(
                                    "This phone's stack is not sealed; that was decided by its first layer.",
                                    "lesser"));
                }
            }
            case CLOSED -> getChildren().add(new UnlockPane(desk, phone, () -> {}));
            case OPENED -> {
                getChildren()
                        .add(Parts.state(
                                Mark.DONE, first ? "The first layer will be sealed" : "Sealed, and opened here"));
                getChildren()
                        .add(
                                first
                                        ? Parts.button(
                                                "unseal",
                                                "Take the seal back",
                                                "",
                                                () -> desk.backups().unseal(bay))
                                        : Parts.button(
                                                "seal-close", "Close it again", "", () -> desk.closeSeal(phone)));
            }
        }
    }

    private void offer() {
        getChildren()
                .add(Parts.sentence(
                        "A sealed copy can only be read with its passphrase. The phone gives some kinds only to a sealed copy.",
                        "lesser"));
        getChildren().add(Parts.button("seal-open-form", "Seal this phone's stack…", "", this::form));
    }

    private void form() {
        var first = new SecretField("seal-passphrase", "Passphrase");
        var second = new SecretField("seal-again", "The same again");
        var meter = new Meter();
        var words = Parts.sentence("", "lesser");
        words.setId("seal-strength");
        Button seal = Parts.button("seal-start", "Seal", "", () -> {}, "main");
        Label lost = Parts.sentence(
                "Custodex stores it nowhere. If it is lost, nobody can open these copies again, not even the shop.",
                "mark-hand-words");
        Runnable judge = () -> {
            try (var passphrase = first.passphrase();
                    var again = second.passphrase()) {
                if (passphrase.isEmpty()) {
                    words.setText("Four unrelated words are a good one.");
                    meter.show(0);
                    seal.setDisable(true);
                    return;
                }
                var strength = PassphraseStrength.of(passphrase, guesses());
                meter.show(strength.level() + 1);
                boolean same = passphrase.same(again);
                words.setText("Would stand: " + strength.time() + ". "
                        + (!strength.enough()
                                ? "Too weak. " + String.join(" ", strength.advice())
                                : same ? "" : again.isEmpty() ? "Type it again." : "The two differ."));
                seal.setDisable(!same || !strength.enough());
            }
        };
        first.textProperty().addListener((o, was, is) -> judge.run());
        second.textProperty().addListener((o, was, is) -> judge.run());
        seal.setOnAction(event -> {
            seal.setDisable(true);
            desk.backups().seal(bay, first.passphrase(), () -> {});
            first.clear();
            second.clear();
        });
        var buttons = Parts.row(seal, Parts.button("seal-cancel", "Leave it unsealed", "", () -> {
            shown = List.of();
            refresh();
        }));
        getChildren().setAll(Parts.text("Seal", "heading"), first, meter, words, second, lost, buttons);
        judge.run();
        first.requestFocus();
    }

    /** What somebody who knows this job would try first. */
    private List<String> guesses() {
        var guesses = new ArrayList<String>();
        bay.docket().get().map(Docket::customer).ifPresent(guesses::add);
        bay.phone().ifPresent(phone -> guesses.addAll(List.of(phone.name(), phone.model(), phone.serial())));
        guesses.removeIf(String::isBlank);
        return guesses;
    }

    /** Five bars, as many of them filled as the passphrase is strong. */
    private static final class Meter extends HBox {
        Meter() {
            super(3);
            for (int i = 0; i < 5; i++) {
                var bar = new Region();
                bar.getStyleClass().add("meter-bar");
                HBox.setHgrow(bar, javafx.scene.layout.Priority.ALWAYS);
                getChildren().add(bar);
            }
        }

        void show(int filled) {
            for (int i = 0; i < getChildren().size(); i++) {
                Node bar = getChildren().get(i);
                bar.getStyleClass().removeAll("meter-weak", "meter-strong");
                if (i < filled) {
                    bar.getStyleClass().add(filled > PassphraseStrength.ENOUGH ? "meter-strong" : "meter-weak");
                }
            }
        }
    }
}
