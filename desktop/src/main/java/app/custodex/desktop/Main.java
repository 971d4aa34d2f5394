package app.custodex.desktop;

import javafx.application.Application;

/** Starts the desktop; apart from {@link App}, so that JavaFX need not be on the module path. */
public final class Main {
    private Main() {}

    public static void main(String[] args) {
        Application.launch(App.class, args);
    }
}
