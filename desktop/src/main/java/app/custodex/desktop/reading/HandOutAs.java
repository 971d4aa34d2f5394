package app.custodex.desktop.reading;

import app.custodex.base.ProblemException;
import app.custodex.desktop.ui.InWords;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.SecretField;
import app.custodex.extract.Delivery;
import app.custodex.extract.Delivery.Form;
import java.util.Arrays;
import java.util.Optional;
import javafx.scene.control.ComboBox;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** As what things are handed out: files, or a package, which may be sealed with a passphrase. */
final class HandOutAs extends VBox {
    private final ComboBox<Form> form = new ComboBox<>();
    private final SecretField passphrase = new SecretField("extract-passphrase", "Passphrase of the customer");
    private final SecretField again = new SecretField("extract-passphrase-again", "The same again");

    HandOutAs() {
        super(8);
        form.setId("extract-form");
        form.getItems().setAll(Form.values());
        form.setValue(Form.FILES);
        form.setMaxWidth(Double.MAX_VALUE);
        form.setConverter(new InWords<>(value -> value.label()));
        HBox.setHgrow(form, Priority.ALWAYS);
        HBox.setHgrow(passphrase, Priority.ALWAYS);
        HBox.setHgrow(again, Priority.ALWAYS);
        var secrets = new HBox(8, passphrase, again);
        secrets.visibleProperty().bind(form.valueProperty().isEqualTo(Form.SEALED));
        secrets.managedProperty().bind(secrets.visibleProperty());
        getChildren().addAll(Parts.row(Parts.text("Hand out as", "lesser"), form), secrets);
    }

    Form form() {
        return form.getValue();
    }

    /** Chooses what was chosen before, by its code. */
    void restore(String code) {
        Arrays.stream(Form.values()).filter(each -> each.code().equals(code)).forEach(form::setValue);
    }

    void onChange(Runnable changed) {
        form.valueProperty().addListener((o, was, is) -> changed.run());
    }

    /**
     * What was chosen; the caller closes its passphrase. The fields are empty then.
     *
     * @throws ProblemException when the passphrase is none
     */
    Delivery delivery() throws ProblemException {
        if (form.getValue() != Form.SEALED) {
            return new Delivery(form.getValue(), Optional.empty());
        }
        var typed = passphrase.passphrase();
        boolean taken = false;
        try (var same = again.passphrase()) {
            var delivery = Delivery.sealed(typed, same);
            taken = true;
            passphrase.clear();
            again.clear();
            return delivery;
        } finally {
            if (!taken) {
                typed.close();
            }
        }
    }
}
