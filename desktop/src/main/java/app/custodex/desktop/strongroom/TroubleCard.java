package app.custodex.desktop.strongroom;

import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.strongroom.Strongroom;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What is wrong with the strongroom's own files: named, and mended as far as that goes without a phone. Not there when all is well. */
final class TroubleCard extends VBox {
    private static final int MOST = 3;

    private final Desk desk;
    private final VBox lines = new VBox(4);
    private final Label result = Parts.sentence("", "lesser");
    private final Button mend = Parts.button("strongroom-mend", "Mend what can be mended", "", this::mend);

    TroubleCard(Desk desk) {
        super(8);
        this.desk = desk;
        setId("strongroom-trouble");
        getStyleClass().add("card");
        var actions = new HBox(12, mend, result);
        actions.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(lines, actions);
        desk.holdings().addListener((o, was, is) -> show(is));
        show(desk.holdings().get());
    }

    private void show(Strongroom.Holdings holdings) {
        var problems = holdings.problems();
        lines.getChildren().clear();
        problems.stream()
                .limit(MOST)
                .forEach(problem -> lines.getChildren().add(Parts.state(Mark.TROUBLE, words(problem, holdings))));
        if (problems.size() > MOST) {
            lines.getChildren().add(Parts.sentence("and " + (problems.size() - MOST) + " more", "lesser"));
        }
        problems.stream()
                .map(Problem::advice)
                .distinct()
                .forEach(advice -> lines.getChildren().add(Parts.sentence(advice + ".", "lesser")));
        mend.setVisible(!problems.isEmpty());
        mend.setManaged(mend.isVisible());
        setVisible(!problems.isEmpty() || !result.getText().isEmpty());
        setManaged(isVisible());
    }

    /** Whose phone it is, what happened, and to which file. The long names of folders tell nobody anything. */
    private static String words(Problem problem, Strongroom.Holdings holdings) {
        var whose = holdings.phones().stream()
                .filter(phone -> phone.problems().contains(problem))
                .findFirst()
                .map(phone -> phone.identity().name())
                .orElse("The strongroom");
        var file = problem.subject()
                .replaceFirst("[0-9a-f]{3}/[0-9a-f]{3}/[0-9a-f]{3}/(?=[0-9a-f]{64})", "")
                .replaceFirst("([0-9a-f]{8})[0-9a-f]{56}", "$1\u2026");
        return whose + ": " + problem.what() + " (" + file + ")";
    }

    private void mend() {
        mend.setDisable(true);
        desk.work().start("The strongroom", () -> desk.custodex().strongroom().mend(), this::told, () -> {
            mend.setDisable(false);
            desk.refreshHoldings();
        });
    }

    private void told(List<Problem> told) {
        long mended = told.stream()
                .filter(problem -> problem.grade() == Problem.Grade.NOTE)
                .count();
        long left = told.size() - mended;
        result.setText(desk.words().count(mended, "file was", "files were") + " mended"
                + (left == 0 ? "." : ", " + desk.words().count(left) + " could not be."));
    }
}
