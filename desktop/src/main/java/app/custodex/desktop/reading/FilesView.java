package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.files.FolderTree;
import app.custodex.files.FolderTree.Folder;
import app.custodex.files.FolderTree.Item;
import app.custodex.files.FolderTree.Node;
import app.custodex.files.FolderTree.OfApp;
import java.util.List;
import java.util.Optional;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.TreeCell;
import javafx.scene.control.TreeItem;
import javafx.scene.control.TreeView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** The files of a layer as they lie on the phone, and what stands in each. */
final class FilesView extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double TREE_WIDTH = 420;
    private static final double ROW = 30;

    private final Desk desk;
    private final Runnable closed;
    private final TextField find = new TextField();
    private final Label count = Parts.text("", "lesser");
    private final TreeView<Node> tree = new TreeView<>();
    private final ListView<Item> found = new ListView<>();
    private final StackPane lists = new StackPane(tree);
    private final FileLook look;
    private final Button byApp = Parts.button("files-by-app", "By app", "", this::toggleByApp, "row-button", "scope");
    private Optional<Listed> listed = Optional.empty();
    private boolean showingApps;
    private List<Item> items = List.of();
    private Optional<OpenPhone> phone = Optional.empty();

    /** @param closed is told that it is to be put away */
    FilesView(Desk desk, Runnable closed) {
        this.desk = desk;
        this.closed = closed;
        look = new FileLook(desk);
        setId("files");
        getStyleClass().add("pane-border");
        find.setId("files-find");
        find.setPromptText("Find by name or path…");
        find.textProperty().addListener((o, was, is) -> filter(is));
        HBox.setHgrow(find, Priority.ALWAYS);
        count.setId("files-count");
        tree.setId("files-tree");
        tree.setShowRoot(false);
        tree.setFixedCellSize(ROW);
        tree.setCellFactory(view -> new NodeCell());
        tree.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            if (is != null && is.getValue() instanceof Item item) {
                show(item);
            }
        });
        found.setPlaceholder(Parts.text("No file has this in its path.", "lesser"));
        found.setId("files-found");
        found.setFixedCellSize(ROW);
        found.setCellFactory(view -> new PathCell());
        found.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            if (is != null) {
                show(is);
            }
        });
        VBox.setVgrow(lists, Priority.ALWAYS);
        var head = new HBox(8, find, Parts.button("files-close", "Close", "Esc", this::close));
        head.setAlignment(Pos.CENTER_LEFT);
        head.setStyle("-fx-padding: 8 10 8 10;");
        var foot = new HBox(8, count, Parts.gap(), byApp);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setStyle("-fx-padding: 4 10 6 12;");
        var left = new VBox(head, Parts.rule(), foot, Parts.rule(), lists);
        left.getStyleClass().add("split-left");
        left.setMinWidth(TREE_WIDTH);
        left.setMaxWidth(TREE_WIDTH);
        HBox.setHgrow(look, Priority.ALWAYS);
        getChildren().addAll(left, look);
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                close();
                event.consume();
            }
        });
        desk.veil().down().addListener((o, was, is) -> {
            tree.refresh();
            found.refresh();
        });
    }

    /** Shows the files of a layer. */
    void open(OpenPhone of) {
        if (phone.equals(Optional.of(of))) {
            find.requestFocus();
            return;
        }
        leave();
        phone = Optional.of(of);
        count.setText("Reading the list of files…");
        desk.work()
                .start(
                        "Files",
                        () -> {
                            var all = of.items();
                            return new Listed(all, FolderTree.of(all), FolderTree.byApp(of.appFolders(), all));
                        },
                        listed -> {
                            if (phone.equals(Optional.of(of))) {
                                take(listed);
                            }
                        });
    }

    /** @param apps the data of apps, each under its name */
    private record Listed(List<Item> items, Folder root, Folder apps) {}

    private void take(Listed newListed) {
        listed = Optional.of(newListed);
        items = newListed.items();
        byApp.setDisable(newListed.apps().items() == 0);
        showTree();
        filter(find.getText());
        tree.requestFocus();
    }

    private void showTree() {
        listed.ifPresent(all -> {
            var root = new Branch(showingApps ? all.apps() : all.root());
            root.setExpanded(true);
            tree.setRoot(root);
        });
        byApp.pseudoClassStateChanged(PRESENT, showingApps);
    }

    private void toggleByApp() {
        showingApps = !showingApps;
        find.clear();
        showTree();
        filter("");
    }

    void focusFind() {
        find.requestFocus();
        find.selectAll();
    }

    /** Forgets the layer that is no longer open. */
    void leave() {
        phone = Optional.empty();
        items = List.of();
        listed = Optional.empty();
        showingApps = false;
        byApp.pseudoClassStateChanged(PRESENT, false);
        byApp.setDisable(true);
        tree.setRoot(null);
        found.setItems(FXCollections.observableArrayList());
        find.clear();
        count.setText("");
        look.clear();
    }

    private void close() {
        look.clear();
        tree.getSelectionModel().clearSelection();
        found.getSelectionModel().clearSelection();
        closed.run();
    }

    private String figures(int files, long bytes) {
        return desk.words().count(files, "file", "files") + ", " + desk.words().bytes(bytes);
    }

    private void filter(String typed) {
        boolean all = typed.isBlank();
        lists.getChildren().setAll(all ? tree : found);
        if (all) {
            Optional.ofNullable(tree.getRoot())
                    .map(TreeItem::getValue)
                    .filter(Folder.class::isInstance)
                    .map(Folder.class::cast)
                    .ifPresent(root -> count.setText(figures(root.items(), root.bytes())));
            return;
        }
        var hits = FolderTree.find(items, typed);
        found.setItems(FXCollections.observableList(hits));
        count.setText(figures(hits.size(), hits.stream().mapToLong(Item::bytes).sum()));
    }

    private void show(Item item) {
        phone.ifPresent(open -> look.show(open, item));
    }

    /** A folder whose insides are made when it is opened. */
    private static final class Branch extends TreeItem<Node> {
        private boolean filled;

        Branch(Node node) {
            super(node);
        }

        @Override
        public boolean isLeaf() {
            return getValue() instanceof Item;
        }

        @Override
        public ObservableList<TreeItem<Node>> getChildren() {
            if (!filled) {
                filled = true;
                super.getChildren()
                        .setAll(children(getValue()).stream()
                                .<TreeItem<Node>>map(Branch::new)
                                .toList());
            }
            return super.getChildren();
        }
    }

    private static List<Node> children(Node of) {
        return switch (of) {
            case Folder folder -> folder.children();
            case OfApp app -> app.folder().children();
            case Item item -> List.of();
        };
    }

    /** A name, and at the right how much it holds. */
    private HBox line(UserText name, Label size) {
        size.setMinWidth(USE_PREF_SIZE);
        HBox.setHgrow(name, Priority.ALWAYS);
        var line = new HBox(8, name, size);
        line.setAlignment(Pos.CENTER_LEFT);
        line.setMinWidth(0);
        return line;
    }

    private final class NodeCell extends TreeCell<Node> {
        private final UserText name = desk.veil().line("");
        private final Label size = Parts.text("", "lesser");
        private final HBox line = line(name, size);

        NodeCell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Node node, boolean empty) {
            super.updateItem(node, empty);
            if (empty || node == null) {
                setGraphic(null);
                return;
            }
            name.setText(node.name());
            size.setText(
                    switch (node) {
                        case Folder folder -> figures(folder.items(), folder.bytes());
                        case OfApp app -> figures(app.folder().items(), app.bytes());
                        case Item item -> desk.words().bytes(item.bytes());
                    });
            setGraphic(line);
        }
    }

    private final class PathCell extends ListCell<Item> {
        private final UserText path = desk.veil().line("");
        private final Label size = Parts.text("", "lesser");
        private final HBox line = line(path, size);

        PathCell() {
            setPrefWidth(0);
        }

        @Override
        protected void updateItem(@Nullable Item item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            path.setText(item.path().text());
            size.setText(desk.words().bytes(item.bytes()));
            setGraphic(line);
        }
    }
}
