package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Folds;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Thumbnails;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.Ranges;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.MediaFile;
import app.custodex.model.ThingKind;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.TextAlignment;

/** Paints what is in sight of a contact sheet: pictures on one canvas, their headings as nodes over it. */
final class SheetPainter {
    /** Pixels at both sides. */
    static final int MARGIN = 10;

    private static final int DAMAGED_WIDTH = 66;

    record Colours(Color empty, Color accent, Color ink, Color ground) {}

    /**
     * What is in sight.
     *
     * @param top how far it is scrolled
     * @param present the picture that the keyboard is at; -1 for none
     * @param headings whether each group has one
     * @param byMonth whether they name months rather than days
     */
    record Sight(
            Optional<Arrangement> rows,
            Optional<SheetLayout> layout,
            double top,
            Ranges selection,
            int present,
            boolean headings,
            boolean byMonth,
            Optional<RubberBand> band,
            Colours colours) {}

    /** @param first of its pictures */
    private record Group(int number, int first, int things) {}

    private final Desk desk;
    private final TrayModel tray;
    private final Thumbnails thumbnails;
    private final Canvas canvas = new Canvas();
    private final Pane headings = new Pane();
    private final List<Heading> headingNodes = new ArrayList<>();
    private final Font small = Font.font("Spline Sans Mono", 12);
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter monthFormat;
    private Optional<Folds> folds = Optional.empty();

    SheetPainter(Desk desk, TrayModel tray, Thumbnails thumbnails) {
        this.desk = desk;
        this.tray = tray;
        this.thumbnails = thumbnails;
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL)
                .localizedBy(desk.words().locale());
        monthFormat =
                DateTimeFormatter.ofPattern("LLLL y").localizedBy(desk.words().locale());
        headings.setMouseTransparent(true);
    }

    /** What stands behind pictures. */
    void fold(Optional<Folds> newFolds) {
        folds = newFolds;
    }

    Canvas canvas() {
        return canvas;
    }

    Pane headings() {
        return headings;
    }

    /** Paints what is in sight, and asks for the pictures of that. */
    void paint(Sight sight, double width, double height) {
        var g = canvas.getGraphicsContext2D();
        g.setFill(sight.colours().ground());
        g.fillRect(0, 0, width, height);
        int used = 0;
        var inSight = new HashSet<String>();
        if (sight.layout().filter(all -> all.rows() > 0).isPresent()
                && sight.rows().isPresent()) {
            var all = sight.layout().get();
            double top = sight.top();
            int firstRow = all.rowAt(top);
            for (int row = firstRow; row < all.rows() && all.topOf(row) - SheetLayout.HEADING < top + height; row++) {
                for (int picture = all.firstOf(row); picture < all.endOf(row); picture++) {
                    paint(sight, picture, row, inSight);
                }
            }
            if (sight.headings()) {
                used = placeHeadings(sight, firstRow, width, height);
            }
        }
        for (int i = used; i < headingNodes.size(); i++) {
            headingNodes.get(i).setVisible(false);
        }
        thumbnails.inSight(inSight);
        sight.band().ifPresent(now -> {
            double top = sight.top();
            g.setFill(sight.colours().accent().deriveColor(0, 1, 1, 0.18));
            g.fillRect(now.left(), now.top() - top, now.right() - now.left(), now.bottom() - now.top());
            g.setStroke(sight.colours().accent());
            g.setLineWidth(1);
            g.strokeRect(now.left() + 0.5, now.top() - top + 0.5, now.right() - now.left(), now.bottom() - now.top());
        });
    }

    private void paint(Sight sight, int picture, int row, Set<String> inSight) {
        var g = canvas.getGraphicsContext2D();
        var all = sight.layout().orElseThrow();
        double x = MARGIN + all.leftOf(picture);
        double y = all.topOf(row) - sight.top();
        double width = all.widthOf(picture);
        double height = all.heightOf(row);
        var rows = sight.rows().orElseThrow();
        g.setFill(sight.colours().empty());
        g.fillRect(x, y, width, height);
        var file = rows.entry(picture)
                .map(Entry::thing)
                .filter(MediaFile.class::isInstance)
                .map(MediaFile.class::cast);
        if (file.isPresent() && !desk.veil().isDown()) {
            var item = file.get().id().item();
            inSight.add(item);
            var image = thumbnails.get(item);
            if (image.isPresent()) {
                fill(g, image.get(), x, y, width, height);
                if (thumbnails.isDamaged(item)) {
                    badge(sight.colours(), "damaged", x + DAMAGED_WIDTH, y + height);
                }
            } else if (thumbnails.isUnreadable(item)) {
                words(sight.colours(), "can't be shown", x, y, width, height);
            }
        }
        if (rows.spine().kind(rows.places()[picture]) == ThingKind.VIDEO) {
            badge(
                    sight.colours(),
                    file.flatMap(MediaFile::length).map(ThingWords::length).orElse("video"),
                    x + width,
                    y + height);
        }
        var behind = folds.flatMap(known -> known.behind(rows.numbers()[picture]));
        behind.ifPresent(fold -> badge(
                sight.colours(),
                fold.burst() ? "burst of " + (fold.numbers().size() + 1) : "with clip",
                x + width,
                y + height));
        if (tray.has(rows.numbers()[picture])) {
            badge(sight.colours(), "✓", x + width, y + 22);
        }
        if (sight.selection().has(picture)) {
            g.setStroke(sight.colours().accent());
            g.setLineWidth(3);
            g.strokeRect(x + 1.5, y + 1.5, width - 3, height - 3);
        }
        if (picture == sight.present()) {
            g.setStroke(sight.colours().ink());
            g.setLineWidth(1);
            g.strokeRect(x + 3.5, y + 3.5, width - 7, height - 7);
        }
    }

    /** Fills a place with the middle of a picture, whose own shape may be another. */
    private static void fill(GraphicsContext g, Image image, double x, double y, double width, double height) {
        double scale = Math.max(width / image.getWidth(), height / image.getHeight());
        double cutWidth = Math.min(image.getWidth(), width / scale);
        double cutHeight = Math.min(image.getHeight(), height / scale);
        double left = (image.getWidth() - cutWidth) / 2;
        double above = (image.getHeight() - cutHeight) / 2;
        g.drawImage(image, left, above, cutWidth, cutHeight, x, y, width, height);
    }

    private void words(Colours colours, String words, double x, double y, double width, double height) {
        var g = canvas.getGraphicsContext2D();
        g.setFont(small);
        g.setFill(colours.ink());
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.CENTER);
        g.fillText(words, x + width / 2, y + height / 2, width - 4);
    }

    private void badge(Colours colours, String words, double right, double bottom) {
        var g = canvas.getGraphicsContext2D();
        double width = 8 + 7.4 * words.length();
        g.setFill(colours.ink());
        g.fillRect(right - width - 3, bottom - 21, width, 18);
        g.setFill(colours.ground());
        g.setFont(small);
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.CENTER);
        g.fillText(words, right - width / 2 - 3, bottom - 12);
    }

    /** The heading of what is at the top stays there until the next one pushes it away. */
    private int placeHeadings(Sight sight, int firstRow, double width, double height) {
        var all = sight.layout().orElseThrow();
        double top = sight.top();
        int used = 0;
        for (int group = all.groupOf(firstRow); group < all.groups(); group++) {
            double y = all.topOf(all.firstRowOf(group)) - SheetLayout.HEADING - top;
            if (y >= height) {
                break;
            }
            if (y < 0) {
                double next = group + 1 < all.groups()
                        ? all.topOf(all.firstRowOf(group + 1)) - 2.0 * SheetLayout.HEADING - top
                        : 0;
                y = Math.min(0, next);
            }
            if (used == headingNodes.size()) {
                var heading = new Heading();
                headingNodes.add(heading);
                headings.getChildren().add(heading);
            }
            int first = all.firstOf(all.firstRowOf(group));
            int end = group + 1 < all.groups() ? all.firstOf(all.firstRowOf(group + 1)) : all.size();
            headingNodes.get(used++).show(sight, new Group(group, first, end - first), y, width);
        }
        return used;
    }

    private final class Heading extends HBox {
        private final Label day = Parts.text("", "strong");
        private final UserText name = desk.veil().line("", "strong");
        private final Label count = Parts.text("", "lesser");

        Heading() {
            super(8);
            getStyleClass().add("sheet-heading");
            setAlignment(Pos.CENTER_LEFT);
            setManaged(false);
            day.setMinWidth(USE_PREF_SIZE);
            count.setMinWidth(USE_PREF_SIZE);
            getChildren().addAll(day, name, count);
        }

        void show(Sight sight, Group group, double y, double width) {
            var rows = sight.rows().orElseThrow();
            boolean byDay = rows.byTime();
            day.setText(byDay ? day(sight, group.first()) : "");
            name.setText(byDay ? "" : section(rows, group.number()));
            for (var part : List.of(day, name)) {
                boolean wanted = byDay == (part == day);
                part.setVisible(wanted);
                part.setManaged(wanted);
            }
            count.setText(desk.words().count(group.things()));
            setVisible(true);
            resizeRelocate(0, y, width, SheetLayout.HEADING);
            layout();
        }

        private String day(Sight sight, int row) {
            return sight.rows()
                    .orElseThrow()
                    .day(row)
                    .map((sight.byMonth() ? monthFormat : dayFormat)::format)
                    .orElse("No date");
        }

        private String section(Arrangement rows, int group) {
            var name = rows.sections().get(group).name();
            return name.isBlank() ? "In none" : name;
        }
    }
}
