package app.custodex.desktop.reading;

import app.custodex.catalogue.Spine;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.scene.control.Button;
import javafx.scene.layout.Region;

/** The months of a long page beside it, each where it begins; a click goes there. */
final class MonthRail extends Region {
    static final double WIDTH = 66;
    private static final double APART = 21;

    private final DateTimeFormatter format;
    private final IntConsumer jump;
    private List<Begin> months = List.of();
    private int rows;
    private double laidOut = -1;

    /** @param row with which a month begins */
    private record Begin(int row, YearMonth month) {}

    /** @param jump is told the row with which the month begins that was chosen */
    MonthRail(Locale locale, IntConsumer jump) {
        this.format = DateTimeFormatter.ofPattern("LLL yyyy", locale);
        this.jump = jump;
        setId("month-rail");
        setManaged(false);
        heightProperty().addListener((o, was, is) -> place());
    }

    /** @param places of the rows in the order of time */
    void show(Spine spine, int[] places) {
        var found = new ArrayList<Begin>();
        var last = Optional.<YearMonth>empty();
        var lastDay = Optional.<Integer>empty();
        for (int row = 0; row < places.length; row++) {
            var day = spine.day(places[row]);
            if (day.isPresent() && !day.equals(lastDay)) {
                lastDay = day;
                var month = Optional.of(YearMonth.from(LocalDate.ofEpochDay(day.get())));
                if (!month.equals(last)) {
                    last = month;
                    found.add(new Begin(row, month.get()));
                }
            }
        }
        months = List.copyOf(found);
        rows = places.length;
        laidOut = -1;
        setVisible(months.size() > 1);
        place();
    }

    /** As many as there is room for. */
    private void place() {
        if (laidOut == getHeight() || getHeight() <= 0) {
            return;
        }
        laidOut = getHeight();
        getChildren().clear();
        double free = 0;
        for (var month : months) {
            double y = (getHeight() - APART) * month.row() / Math.max(1, rows);
            if (y >= free) {
                free = y + APART;
                var words = format.format(month.month());
                var button = new Button(words);
                button.setFocusTraversable(false);
                button.getStyleClass().add("month");
                button.setAccessibleText("To " + words);
                button.setOnAction(event -> jump.accept(month.row()));
                button.setManaged(false);
                getChildren().add(button);
                button.resizeRelocate(0, Math.round(y), WIDTH, APART - 1);
            }
        }
    }
}
