package app.custodex.desktop.reading;

import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Veil;
import app.custodex.model.Contact;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** One contact in the list: whether it is picked, what it is called, and one line more. */
final class ContactCell extends ListCell<Contact> {
    private final ReadingModel model;
    private final CheckBox pick = new CheckBox();
    private final UserText title;
    private final UserText more;
    private final HBox row;

    ContactCell(ReadingModel model, Veil veil) {
        this.model = model;
        title = veil.line("", "strong");
        more = veil.line("", "lesser");
        pick.setFocusTraversable(false);
        pick.setOnAction(event -> {
            var contact = getItem();
            if (contact != null) {
                model.pick(contact, pick.isSelected());
            }
        });
        var words = new VBox(1, title, more);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        row = new HBox(10, pick, words);
        row.setAlignment(Pos.CENTER_LEFT);
        setPrefWidth(0);
    }

    @Override
    protected void updateItem(@Nullable Contact contact, boolean empty) {
        super.updateItem(contact, empty);
        if (empty || contact == null) {
            setGraphic(null);
            return;
        }
        pick.setSelected(model.isPicked(contact));
        title.setText(contact.title());
        more.setText(more(contact));
        setGraphic(row);
    }

    private static String more(Contact contact) {
        var reach = contact.phones().stream()
                .findFirst()
                .map(phone -> phone.e164().isEmpty() ? phone.written() : phone.e164())
                .or(() -> contact.mails().stream().findFirst().map(Contact.Labelled::value))
                .orElse("");
        var firm = contact.organisation().name();
        return firm.isEmpty() || firm.equals(contact.title()) ? reach : reach.isEmpty() ? firm : reach + " · " + firm;
    }
}
