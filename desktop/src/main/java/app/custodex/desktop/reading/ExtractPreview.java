package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Pixels;
import app.custodex.desktop.ui.Parts;
import app.custodex.extract.Extraction;
import app.custodex.extract.Extraction.Preview;
import app.custodex.extract.formats.Formats;
import app.custodex.extract.pdf.PagePictures;
import app.custodex.media.Picture;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jsoup.Jsoup;
import org.jspecify.annotations.Nullable;

/** The first files that would be written, and how the chosen one begins; behind the curtain nothing of it is shown. */
final class ExtractPreview extends VBox {
    /** Things of each group that it is made of. */
    private static final int MOST = 12;

    private static final double ROW = 28;
    private static final int ROWS = 5;
    private static final int PAGES = 3;
    /** In pixels, and most of it is text. */
    private static final int PAGE_WIDTH = 1_000;

    private static final double SCROLL_BAR = 4;

    private final Desk desk;
    private final Label veiled = Parts.sentence("The curtain is down; lift it with F6 to see a preview.", "lesser");
    private final ListView<Preview> files = new ListView<>();
    private final TextArea text = new TextArea();
    private final VBox pages = new VBox(10);
    private int turn;
    private int page;

    ExtractPreview(Desk desk) {
        super(8);
        this.desk = desk;
        setId("extract-preview");
        files.setId("extract-preview-files");
        files.setFixedCellSize(ROW);
        files.setPrefHeight(ROWS * ROW + 2);
        files.setMinHeight(ROWS * ROW + 2);
        files.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable Preview item, boolean empty) {
                super.updateItem(item, empty);
                setPrefWidth(0);
                setGraphic(empty || item == null ? null : desk.veil().line(item.path()));
            }
        });
        files.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> read(Optional.ofNullable(is)));
        desk.veil()
                .down()
                .addListener((o, was, is) ->
                        read(Optional.ofNullable(files.getSelectionModel().getSelectedItem())));
        text.setId("extract-preview-text");
        text.setEditable(false);
        text.getStyleClass().add("mono");
        VBox.setVgrow(text, Priority.ALWAYS);
        var scroll = new ScrollPane(pages);
        scroll.setId("extract-preview-pages");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.visibleProperty().bind(text.visibleProperty().not());
        var one = new StackPane(text, scroll);
        VBox.setVgrow(one, Priority.ALWAYS);
        var shown = new VBox(8, files, one);
        shown.visibleProperty().bind(desk.veil().down().not());
        veiled.visibleProperty().bind(desk.veil().down());
        var both = new StackPane(shown, veiled);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren()
                .addAll(
                        Parts.text("Preview", "heading"),
                        Parts.text("Of the first things of each group.", "lesser"),
                        both);
    }

    /** Shows how these would be written. */
    void show(OpenPhone of, List<Extraction.Order> orders, ZoneId zone) {
        int mine = ++turn;
        desk.work().start("Preview", () -> made(of, orders, zone), made -> {
            if (mine == turn) {
                files.getItems().setAll(made);
                files.getSelectionModel().selectFirst();
                if (made.isEmpty()) {
                    text.clear();
                }
            }
        });
    }

    private static List<Preview> made(OpenPhone of, List<Extraction.Order> orders, ZoneId zone) throws IOException {
        var made = new ArrayList<Preview>();
        for (var order : orders) {
            boolean book = order.format().code().equals("xlsx");
            // A workbook is shown as the table that stands in it.
            var shown = book
                    ? new Extraction.Order(
                            order.group(),
                            order.numbers(),
                            order.contacts(),
                            Formats.of(order.group(), "csv").orElseThrow(),
                            order.chosen())
                    : order;
            of.outgoing().preview(shown, zone, MOST).stream()
                    .sorted(Comparator.comparing(file -> file.beginning().length == 0)) // originals come last
                    .forEach(file -> made.add(
                            book ? new Preview(file.path().replaceFirst("[.]csv$", ".xlsx"), file.beginning()) : file));
        }
        return made;
    }

    private void read(Optional<Preview> file) {
        int mine = ++page;
        pages.getChildren().clear();
        text.setVisible(true);
        if (file.isPresent() && file.get().path().endsWith(".pdf")) {
            text.setText("…");
            var pdf = file.get().beginning();
            desk.work().start("Preview", () -> drawn(pdf), drawn -> {
                if (mine == page) {
                    text.setText(drawn.isEmpty() ? "This file is too large for a preview." : "");
                    drawn.forEach(picture -> pages.getChildren().add(sheet(picture)));
                    text.setVisible(drawn.isEmpty());
                }
            });
            return;
        }
        text.setText(file.filter(any -> !desk.veil().isDown())
                .map(ExtractPreview::words)
                .orElse(""));
        text.setScrollTop(0);
    }

    /** The first pages; none when not all of the file was kept. */
    private static List<Picture> drawn(byte[] pdf) {
        try {
            return PagePictures.of(pdf, PAGES, PAGE_WIDTH);
        } catch (IOException e) {
            return List.of();
        }
    }

    private ImageView sheet(Picture picture) {
        var view = new ImageView(Pixels.image(picture));
        view.setPreserveRatio(true);
        view.fitWidthProperty()
                .bind(Bindings.min(PAGE_WIDTH, pages.widthProperty().subtract(SCROLL_BAR)));
        return view;
    }

    private static String words(Preview file) {
        if (file.beginning().length == 0) {
            return "This file is written as it is.";
        }
        if (file.path().endsWith(".zip") || file.path().endsWith(".tar")) {
            return "An archive of the files, under the paths that they have on the phone.";
        }
        var written = new String(file.beginning(), StandardCharsets.UTF_8);
        return file.path().endsWith(".html") ? page(written) : written;
    }

    /** The words of a page, a line for each of its parts. */
    private static String page(String html) {
        var page = Jsoup.parse(html);
        page.select("dt, dd, h1, h2, p, tr, article, small").before("\n");
        page.select("td, th, strong").after("  ");
        return page.body()
                .wholeText()
                .replaceAll("(?m)^\\s+", "")
                .replaceAll(" {2,}", "  ")
                .strip();
    }

    void clear() {
        turn++;
        page++;
        pages.getChildren().clear();
        files.getItems().clear();
        text.clear();
    }
}
