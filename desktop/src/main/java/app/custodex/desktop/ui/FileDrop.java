package app.custodex.desktop.ui;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.input.DragEvent;
import javafx.scene.input.TransferMode;

/** Files and folders that are dragged here from another program. */
public final class FileDrop {
    private FileDrop() {}

    /** @param taken gets what is dropped */
    public static void onto(Node node, Consumer<List<Path>> taken) {
        node.addEventHandler(DragEvent.DRAG_OVER, event -> {
            if (event.getDragboard().hasFiles()) {
                event.acceptTransferModes(TransferMode.COPY);
                event.consume();
            }
        });
        node.addEventHandler(DragEvent.DRAG_DROPPED, event -> {
            if (event.getDragboard().hasFiles()) {
                taken.accept(event.getDragboard().getFiles().stream()
                        .map(File::toPath)
                        .toList());
                event.setDropCompleted(true);
                event.consume();
            }
        });
    }
}
