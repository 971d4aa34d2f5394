package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.ui.Fonts;
import app.custodex.desktop.ui.SteadyRobot;
import app.custodex.desktop.ui.UserText;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

@ExtendWith(SteadyRobot.class)
class PrintPagesTest {
    private static final double WIDTH = 468;
    private static final double HEIGHT = 648;

    @Start
    void start(Stage stage) {
        stage.show();
    }

    private static List<UserText> texts(Node node) {
        if (node instanceof UserText text) {
            return List.of(text);
        }
        return node instanceof Parent parent
                ? parent.getChildrenUnmodifiable().stream()
                        .flatMap(child -> texts(child).stream())
                        .toList()
                : List.of();
    }

    private static List<Parent> pages(Printout printout) throws Exception {
        var done = new CompletableFuture<List<Parent>>();
        Platform.runLater(() -> {
            Fonts.load();
            var pages = new PrintPages(printout, WIDTH, HEIGHT);
            pages.lay(() -> {
                var all = new ArrayList<Parent>();
                for (int i = 0; i < pages.size(); i++) {
                    all.add(pages.page(i));
                }
                done.complete(all);
            });
        });
        return done.get(30, TimeUnit.SECONDS);
    }

    @Test
    void everyLineStandsOnOnePageAndInsideIt() throws Exception {
        var lines = new ArrayList<Printout.Line>();
        for (int i = 0; i < 300; i++) {
            var text = "line " + i + (i % 7 == 0 ? " 灯台 نور सागर 🌊 ".repeat(i % 40) : " and so on".repeat(i % 50));
            lines.add(new Printout.Line("14 Nov 2025, 20:04", i % 2 == 0 ? "Sent" : "Ivo Kelp", text));
        }
        lines.add(new Printout.Line("x", "y", "long ".repeat(20_000)));
        lines.add(new Printout.Line("x", "y", "😀".repeat(3_001)));
        var printout = new Printout("Fenna's phone", List.of("layer 2"), lines);
        var pages = pages(printout);
        assertTrue(pages.size() > 10, pages.size() + " pages");
        var seen = new ArrayList<String>();
        for (int i = 0; i < pages.size(); i++) {
            var page = pages.get(i);
            var footer = "Page " + (i + 1) + " of " + pages.size();
            assertTrue(texts(page).stream().anyMatch(text -> text.getText().equals(footer)), footer);
            for (var text : texts(page).subList(0, texts(page).size() - 2)) {
                var bounds = WaitForAsyncUtils.asyncFx(
                                () -> page.sceneToLocal(text.localToScene(text.getBoundsInLocal())))
                        .get();
                // A space at the end of a line may stand out.
                assertTrue(bounds.getMaxY() <= HEIGHT && bounds.getMaxX() <= WIDTH + 4, text.getText() + bounds);
                seen.add(text.getText());
            }
            assertEquals(HEIGHT, ((Region) page).getHeight());
        }
        var wanted = new ArrayList<>(List.of("Fenna's phone", "layer 2"));
        printout.lines().forEach(line -> wanted.addAll(List.of(line.when(), line.who(), line.what())));
        assertEquals(wanted, seen);
        // A long text goes on, with nothing lost and no character cut in two.
        var all = printout.lines().stream().map(Printout.Line::what).collect(Collectors.joining());
        assertEquals(lines.stream().map(Printout.Line::what).collect(Collectors.joining()), all);
        assertTrue(printout.lines().stream()
                .noneMatch(line -> !line.what().isEmpty()
                        && Character.isLowSurrogate(line.what().charAt(0))));
    }
}
