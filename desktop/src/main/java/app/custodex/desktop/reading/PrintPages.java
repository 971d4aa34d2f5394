package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Theme;
import app.custodex.desktop.ui.UserText;
import java.util.ArrayList;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Lays a printout out into pages, some lines at a time, so that the window goes on. Interface thread only. */
final class PrintPages {
    private static final int AT_A_TIME = 40;
    private static final double WHEN = 130;
    private static final double WHO = 104;
    private static final double GAP = 10;
    private static final double FOOT = 22;

    private final Printout printout;
    private final double width;
    private final double height;
    /** The line with which each page begins. */
    private final List<Integer> begins = new ArrayList<>(List.of(0));

    private double used;

    /** @param width of what can be printed on, in points of 1/72 inch, as is the height */
    PrintPages(Printout printout, double width, double height) {
        this.printout = printout;
        this.width = width;
        this.height = height;
        used = measured(heading());
    }

    /** @param then is run when the pages are known */
    void lay(Runnable then) {
        layFrom(0, then);
    }

    private void layFrom(int first, Runnable then) {
        int end = Math.min(printout.lines().size(), first + AT_A_TIME);
        for (int line = first; line < end; line++) {
            double high = measured(row(printout.lines().get(line)));
            if (used + high > height - FOOT && begins.getLast() < line) {
                begins.add(line);
                used = 0;
            }
            used += high;
        }
        if (end < printout.lines().size()) {
            Platform.runLater(() -> layFrom(end, then));
        } else {
            then.run();
        }
    }

    int size() {
        return begins.size();
    }

    /** @param number from 0 */
    Parent page(int number) {
        var lines = new VBox();
        if (number == 0) {
            lines.getChildren().add(heading());
        }
        int end = number + 1 < begins.size()
                ? begins.get(number + 1)
                : printout.lines().size();
        for (int line = begins.get(number); line < end; line++) {
            lines.getChildren().add(row(printout.lines().get(line)));
        }
        VBox.setVgrow(lines, Priority.ALWAYS);
        var foot = new HBox(
                UserText.printed(printout.title(), "lesser"),
                Parts.gap(),
                UserText.printed("Page " + (number + 1) + " of " + begins.size(), "lesser"));
        foot.setMinHeight(FOOT);
        foot.setMaxHeight(FOOT);
        foot.setAlignment(Pos.BOTTOM_LEFT);
        var page = paper(new VBox(lines, foot));
        dressed(page).resize(width, height);
        page.layout();
        return page;
    }

    private Region heading() {
        var heading = new VBox(2, UserText.printed(printout.title(), "title"));
        printout.under().forEach(line -> heading.getChildren().add(UserText.printed(line, "lesser")));
        heading.setStyle("-fx-padding: 0 0 12 0;");
        return heading;
    }

    private static Region row(Printout.Line line) {
        var when = fixed(UserText.printed(line.when(), "lesser"), WHEN);
        var who = fixed(UserText.printed(line.who(), "strong"), WHO);
        var what = UserText.printed(line.what());
        what.setMinWidth(0);
        HBox.setHgrow(what, Priority.ALWAYS);
        var row = new HBox(GAP, when, who, what);
        row.setAlignment(Pos.TOP_LEFT);
        row.setStyle("-fx-padding: 3 0 3 0;");
        return row;
    }

    private static Region fixed(Region part, double width) {
        part.setMinWidth(width);
        part.setPrefWidth(width);
        part.setMaxWidth(width);
        return part;
    }

    private double measured(Region part) {
        dressed(paper(new VBox(part)));
        return Math.ceil(part.prefHeight(width));
    }

    private static VBox paper(VBox content) {
        content.getStyleClass().add("paper");
        return content;
    }

    /** With the application's fonts, in ink on white whatever the window looks like. */
    private static <P extends Parent> P dressed(P part) {
        Theme.dress(new Scene(part));
        part.applyCss();
        return part;
    }
}
