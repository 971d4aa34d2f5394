package app.custodex.desktop.ui;

import atlantafx.base.theme.PrimerDark;
import atlantafx.base.theme.PrimerLight;
import javafx.application.Application;
import javafx.scene.Scene;

/** The look: a base theme, and the application's own style sheet over it. */
public final class Theme {
    private static final String SHEET =
            Theme.class.getResource("/app/custodex/desktop/custodex.css").toExternalForm();

    private Theme() {}

    public static void apply(boolean night) {
        Application.setUserAgentStylesheet(
                night ? new PrimerDark().getUserAgentStylesheet() : new PrimerLight().getUserAgentStylesheet());
    }

    public static void dress(Scene scene) {
        scene.getStylesheets().add(SHEET);
    }
}
