package app.custodex.desktop;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.App.Prepared;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.Work;
import java.nio.file.Path;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/**
 * What is shown instead of the bench when the strongroom that was used last is not there: nothing is copied into a new one without
 * being asked to.
 */
public final class FrontDoor {
    /** Opens the home again. */
    public interface Opening {
        Prepared open() throws Exception;
    }

    private final Home home;
    private final Opening opening;
    private final Consumer<Prepared> opened;
    private final Work work;
    private final Label what = Parts.sentence("");
    private final Label advice = Parts.sentence("", "lesser");
    private final TextField folder = new TextField();
    private final VBox mark = new VBox();

    /** @param opened takes the home once it could be opened */
    FrontDoor(Home home, Problem problem, Opening opening, Consumer<Prepared> opened) {
        this.home = home;
        this.opening = opening;
        this.opened = opened;
        this.work = new Work(this::tell);
        tell(problem);
    }

    private void tell(Problem problem) {
        mark.getChildren().setAll(Parts.state(Mark.HAND, problem.what()));
        what.setText(problem.subject());
        advice.setText(problem.advice() + ".");
    }

    Parent view() {
        folder.setId("door-folder");
        folder.setPromptText("A folder with a strongroom, or an empty one for a new strongroom");
        HBox.setHgrow(folder, Priority.ALWAYS);
        what.setId("door-what");
        what.getStyleClass().add("mono");
        var again = Parts.button("door-again", "Try again", "Enter", this::tryAgain, "main");
        again.setDefaultButton(true);
        var other = new HBox(
                8,
                folder,
                Parts.button("door-choose", "Folder…", "", this::choose),
                Parts.button("door-use", "Use this one", "", this::use));
        other.setAlignment(Pos.CENTER_LEFT);
        var card = new VBox(
                14,
                Parts.text("Custodex", "title"),
                mark,
                what,
                advice,
                again,
                Parts.rule(),
                Parts.text("Another strongroom", "heading"),
                Parts.sentence(
                        "The one that was used last stays as it is, wherever it is now. An empty folder becomes a new one.",
                        "lesser"),
                other);
        card.getStyleClass().add("card");
        card.setMaxWidth(720);
        card.setMaxHeight(VBox.USE_PREF_SIZE);
        var ground = new VBox(card);
        ground.setAlignment(Pos.CENTER);
        ground.setId("front-door");
        ground.getStyleClass().add("place-ground");
        return ground;
    }

    private void tryAgain() {
        work.start(home.root().toString(), opening::open, opened);
    }

    private void choose() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("A folder for the strongroom");
        Optional.ofNullable(chooser.showDialog(folder.getScene().getWindow()))
                .ifPresent(chosen -> folder.setText(chosen.getPath()));
    }

    private void use() {
        var words = folder.getText().strip();
        if (words.isEmpty()) {
            folder.requestFocus();
            return;
        }
        work.start(
                words,
                () -> {
                    Custodex.choose(home, Path.of(words));
                    return opening.open();
                },
                opened);
    }

    /** What the home could not be opened for. */
    static Problem problem(Exception e, Home home) {
        return e instanceof ProblemException known
                ? known.problem()
                : Problem.failure(
                        home.root().toString(),
                        "The folder in which Custodex keeps everything can't be read or written",
                        "Look at its disk and its permissions, then try again");
    }
}
