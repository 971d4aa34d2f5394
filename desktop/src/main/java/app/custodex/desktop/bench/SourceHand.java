package app.custodex.desktop.bench;

import app.custodex.app.Bay;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.SecretField;
import app.custodex.desktop.ui.UserText;
import app.custodex.link.CrateLink;
import app.custodex.link.LoftCopy;
import app.custodex.link.LoftLink;
import app.custodex.link.ReadinessStep;
import app.custodex.link.WebDavLink;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** What is done on the bench, not on a phone, before a source gives its files: trusting, signing in, choosing. */
final class SourceHand {
    private final Desk desk;
    private final Bay bay;

    private SourceHand(Desk desk, Bay bay) {
        this.desk = desk;
        this.bay = bay;
    }

    /** The controls for a step; empty when it is done on the phone itself. */
    static Optional<Node> forStep(Desk desk, BayModel model, ReadinessStep step) {
        var hand = new SourceHand(desk, model.bay());
        return switch (model.bay().link()) {
            case WebDavLink dav when step == ReadinessStep.CERTIFICATE -> Optional.of(hand.certificate(dav));
            case WebDavLink dav when step == ReadinessStep.SIGN_IN -> Optional.of(hand.password(dav));
            case LoftLink loft when step == ReadinessStep.SIGN_IN -> Optional.of(hand.account(loft));
            case LoftLink loft when step == ReadinessStep.CODE -> Optional.of(hand.code(loft));
            case LoftLink loft when step == ReadinessStep.CHOOSE_COPY -> Optional.of(hand.copies(loft));
            case CrateLink crate when step == ReadinessStep.PASSPHRASE -> Optional.of(hand.passphrase(crate));
            default -> Optional.empty();
        };
    }

    private void act(Callable<?> action) {
        desk.work()
                .start(
                        bay.source().name(),
                        () -> {
                            action.call();
                            bay.ask();
                            return bay;
                        },
                        done -> desk.refreshBays());
    }

    private Node certificate(WebDavLink dav) {
        var shown = dav.fingerprint().orElse("");
        var print = Parts.sentence(spaced(shown), "mono");
        print.setId("certificate");
        var trust = Parts.button("certificate-trust", "It is the same: trust it", "", () -> {});
        trust.setOnAction(event -> act(() -> {
            desk.custodex().bays().trust(bay, shown);
            return bay;
        }));
        return new VBox(8, Parts.text("SHA-256 fingerprint", "lesser"), print, trust);
    }

    /** In groups, to be compared over the telephone. */
    private static String spaced(String hexadecimal) {
        return hexadecimal.replaceAll("(.{4})(?=.)", "$1 ");
    }

    private Node password(WebDavLink dav) {
        var user = field("source-user", "Name");
        var password = new SecretField("source-password", "Password");
        HBox.setHgrow(password, Priority.ALWAYS);
        var go = Parts.button("source-sign-in", "Sign in", "Enter", () -> {});
        Runnable act = () -> {
            var name = user.getText().strip();
            var secret = password.passphrase();
            password.clear();
            act(() -> {
                try (secret) {
                    secret.lend(characters -> dav.signIn(name, characters));
                }
                bay.ask();
                if (!bay.ready()) {
                    throw new ProblemException(Problem.failure(
                            bay.source().name(),
                            "It did not accept this name and password",
                            "Ask the customer how they are spelled"));
                }
                return dav;
            });
        };
        go.setOnAction(event -> act.run());
        password.setOnAction(event -> act.run());
        return Parts.row(user, password, go);
    }

    private Node passphrase(CrateLink crate) {
        var field = new SecretField("crate-passphrase", "Passphrase");
        HBox.setHgrow(field, Priority.ALWAYS);
        var go = Parts.button("crate-unlock", "Open it", "Enter", () -> {});
        Runnable act = () -> {
            var secret = field.passphrase();
            field.clear();
            act(() -> {
                try (secret) {
                    crate.unlock(secret);
                }
                return crate;
            });
        };
        go.setOnAction(event -> act.run());
        field.setOnAction(event -> act.run());
        return Parts.row(field, go);
    }

    private Node account(LoftLink loft) {
        var account = field("loft-account", "The customer's account");
        HBox.setHgrow(account, Priority.ALWAYS);
        var go = Parts.button("loft-sign-in", "Send the code", "Enter", () -> {});
        Runnable act = () -> act(() -> {
            loft.signIn(account.getText().strip());
            return loft;
        });
        go.setOnAction(event -> act.run());
        account.setOnAction(event -> act.run());
        return Parts.row(account, go);
    }

    private Node code(LoftLink loft) {
        var code = field("loft-code", "One-time code");
        var go = Parts.button("loft-enter-code", "Enter", "Enter", () -> {});
        Runnable act = () -> act(() -> {
            loft.code(code.getText());
            return loft;
        });
        go.setOnAction(event -> act.run());
        code.setOnAction(event -> act.run());
        return Parts.row(code, go);
    }

    private Node copies(LoftLink loft) {
        var box = new VBox(6, Parts.text("Asking what it holds…", "lesser"));
        box.setId("loft-copies");
        desk.work().start(bay.source().name(), loft::copies, copies -> show(box, loft, copies));
        return box;
    }

    private void show(VBox box, LoftLink loft, List<LoftCopy> copies) {
        box.getChildren().clear();
        if (copies.isEmpty()) {
            box.getChildren().add(Parts.sentence("This account holds no copy.", "lesser"));
        }
        for (var copy : copies) {
            Label what = Parts.text(
                    desk.words().moment(copy.made(), desk.now()) + " · "
                            + desk.words().bytes(copy.bytes()),
                    "lesser");
            var words = new VBox(1, UserText.line(copy.title(), "strong"), what);
            HBox.setHgrow(words, Priority.ALWAYS);
            var choose = Parts.button(
                    "copy-" + copy.id(),
                    "Fetch this one",
                    "",
                    () -> act(() -> {
                        loft.choose(copy);
                        return copy;
                    }));
            var row = Parts.row(words, choose);
            box.getChildren().add(row);
        }
    }

    private static TextField field(String id, String prompt) {
        var field = new TextField();
        field.setId(id);
        field.setPromptText(prompt);
        field.setMinWidth(0);
        return field;
    }
}
