package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.files.DocumentText.Paragraph;
import java.util.List;
import javafx.collections.FXCollections;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** A document to read, page by page. */
final class DocumentPages extends ListView<Paragraph> {
    private static final double MARGINS = 60;

    private final Desk desk;
    private int last;

    DocumentPages(Desk desk) {
        this.desk = desk;
        setId("document-pages");
        getStyleClass().add("plain-rows");
        setCellFactory(list -> new Cell());
        desk.veil().down().addListener((o, was, is) -> refresh());
    }

    void show(List<Paragraph> paragraphs) {
        last = paragraphs.isEmpty() ? 0 : paragraphs.getLast().page();
        setItems(FXCollections.observableList(paragraphs));
        scrollTo(0);
    }

    private final class Cell extends ListCell<Paragraph> {
        private final Label page = Parts.text("", "lesser");
        private final UserText words = desk.veil().paragraph("");
        private final VBox all = new VBox(6, page, words);

        Cell() {
            setPrefWidth(0);
            page.managedProperty().bind(page.visibleProperty());
            all.setStyle("-fx-padding: 4 0 8 0;");
            all.maxWidthProperty().bind(DocumentPages.this.widthProperty().subtract(MARGINS));
        }

        @Override
        protected void updateItem(@Nullable Paragraph paragraph, boolean empty) {
            super.updateItem(paragraph, empty);
            if (empty || paragraph == null) {
                setGraphic(null);
                return;
            }
            page.setVisible(paragraph.first() && last > 1);
            page.setText("Page or chapter " + paragraph.page() + " of " + last);
            words.setText(paragraph.text());
            setGraphic(all);
        }
    }
}
