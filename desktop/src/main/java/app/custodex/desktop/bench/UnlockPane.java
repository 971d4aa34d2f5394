package app.custodex.desktop.bench;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.SecretField;
import app.custodex.link.PhoneIdentity;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Asks for the passphrase of a sealed stack. */
public final class UnlockPane extends VBox {
    /** @param opened is called when the stack is open */
    public UnlockPane(Desk desk, PhoneIdentity phone, Runnable opened) {
        super(6);
        var field = new SecretField("unlock-passphrase", "Passphrase");
        HBox.setHgrow(field, Priority.ALWAYS);
        Button open = Parts.button("unlock", "Open", "Enter", () -> {});
        Runnable act = () -> {
            if (field.getLength() == 0) {
                return;
            }
            open.setDisable(true);
            field.setDisable(true);
            desk.openSeal(phone, field.passphrase(), opened, () -> {
                open.setDisable(false);
                field.setDisable(false);
                field.requestFocus();
            });
            field.clear();
        };
        open.setOnAction(event -> act.run());
        field.setOnAction(event -> act.run());
        var row = Parts.row(field, open);
        getChildren()
                .addAll(
                        Parts.state(Mark.HAND, "Sealed"),
                        Parts.sentence("Its passphrase opens it until Custodex is closed.", "lesser"),
                        row);
    }
}
