package app.custodex.desktop.ui;

import app.custodex.seal.Passphrase;
import java.util.Arrays;
import javafx.scene.control.PasswordField;

/** A field for what must not be read off the screen. The toolkit keeps what is typed as text, so it is cleared as soon as it was used. */
public final class SecretField extends PasswordField {
    public SecretField(String id, String prompt) {
        setId(id);
        setPromptText(prompt);
        setMinWidth(0);
    }

    /** What was typed; the caller closes it. */
    public Passphrase passphrase() {
        var typed = getCharacters();
        var characters = new char[typed.length()];
        for (int i = 0; i < characters.length; i++) {
            characters[i] = typed.charAt(i);
        }
        try {
            return new Passphrase(characters);
        } finally {
            Arrays.fill(characters, '\0');
        }
    }
}
