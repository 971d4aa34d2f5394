package app.custodex.desktop.drawer;

import app.custodex.desktop.ui.Parts;
import app.custodex.drawer.PracticeLoft;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.VBox;

/** The simulated remote account: where it answers, and the message in which its owner gets a one-time code. */
final class LoftPane extends VBox {
    private final PracticeLoft loft;
    private final Label message = Parts.sentence("");

    LoftPane(PracticeLoft loft) {
        super(10);
        this.loft = loft;
        setId("practice-loft");
        setPrefWidth(260);
        message.setId("loft-message");
        var glass = new VBox(8, Parts.sentence("Messages", "strong"), message);
        glass.getStyleClass().add("glass");
        glass.setMinHeight(120);
        getChildren()
                .addAll(
                        Parts.text("Loft", "heading"),
                        Parts.text("a remote account", "lesser"),
                        glass,
                        fact("Its address, for Add a source", "loft-address", "loft:" + loft.address()),
                        fact("The customer's account", "loft-owner", loft.account()));
        refresh();
    }

    private static VBox fact(String name, String id, String value) {
        var field = new TextField(value);
        field.setId(id);
        field.setEditable(false);
        return new VBox(2, Parts.text(name, "lesser"), field);
    }

    void refresh() {
        message.setText(loft.message().map(code -> "Your Loft code is " + code).orElse("None"));
    }
}
