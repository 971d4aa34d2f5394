package app.custodex.shots;

import java.nio.file.Path;
import javafx.application.Application;
import javafx.stage.Stage;

/** Renders every main view of the demo into a folder. */
public final class Main {
    private Main() {}

    /** @param args the folder for the pictures */
    public static void main(String[] args) {
        if (args.length != 1) {
            System.err.println("Which folder for the pictures? custodex shots FOLDER");
            System.exit(2);
        }
        Application.launch(Camera.class, args);
    }

    /** Apart from {@link Main}, so that JavaFX need not be on the module path. */
    public static final class Camera extends Application {
        @Override
        public void start(Stage stage) {
            var folder = getParameters().getRaw().getFirst();
            new Shots(Path.of(folder).toAbsolutePath()).take(stage);
        }
    }
}
