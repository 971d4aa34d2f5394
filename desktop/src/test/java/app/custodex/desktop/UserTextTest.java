package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.ui.Fonts;
import app.custodex.desktop.ui.SteadyRobot;
import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Work;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.geometry.NodeOrientation;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import javafx.stage.Stage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.framework.junit5.Start;

@ExtendWith(SteadyRobot.class)
class UserTextTest {
    @Start
    void start(Stage stage) {
        stage.show();
    }

    @BeforeEach
    void fonts() {
        Fonts.load();
    }

    private static List<String> runs(UserText of) {
        return switch (of.getChildren().getFirst()) {
            case Label label -> List.of(label.getText());
            case Text text -> List.of(text.getText());
            case HBox box ->
                box.getChildren().stream().map(n -> ((Label) n).getText()).toList();
            case TextFlow flow ->
                flow.getChildren().stream().map(n -> ((Text) n).getText()).toList();
            default -> throw new AssertionError();
        };
    }

    @Test
    void plainTextTakesTheShortWay() {
        assertInstanceOf(
                Label.class,
                UserText.line("Åse Ó Dálach “Jr” – 4").getChildren().getFirst());
        assertEquals(List.of("two lines"), runs(UserText.line("two\nlines")));
        assertEquals(List.of("two\nlines"), runs(UserText.paragraph("two\nlines")));
    }

    @Test
    void eachScriptGetsAFontThatDrawsIt() {
        var mixed = UserText.line("Noor نور 海斗 한바다 Нева सागर 🌊!");
        assertEquals(List.of("Noor ", "نور ", "海斗 ", "한바다 ", "Нева ", "सागर ", "🌊", "!"), runs(mixed));
        var families = ((HBox) mixed.getChildren().getFirst())
                .getChildren().stream()
                        .map(n -> n.getStyle().replaceAll(".*'(.*)'.*", "$1"))
                        .toList();
        assertEquals(
                List.of(
                        "",
                        "Noto Sans Arabic",
                        "Noto Sans SC",
                        "Noto Sans KR",
                        "Noto Sans",
                        "Noto Sans Devanagari",
                        "Noto Emoji",
                        ""),
                families);
        assertEquals("Noor نور 海斗 한바다 Нева सागर 🌊!", mixed.getAccessibleText());
    }

    @Test
    void namesInGreekAndCyrillicAreAsStrongAsOthers() {
        for (var name : List.of("Нева Серова", "Αλμύρα")) {
            for (var classes : List.of("strong", "lesser")) {
                var text = UserText.line(name, classes);
                new Scene(text);
                text.applyCss();
                var font = ((Label) ((HBox) text.getChildren().getFirst())
                                .getChildren()
                                .getFirst())
                        .getFont();
                assertEquals(classes.equals("strong") ? "Noto Sans SemiBold" : "Noto Sans", font.getFamily());
            }
        }
    }

    @Test
    void everyFontThatIsNamedIsOneThatShips() {
        UserText.line("ไทย বাংলা தமிழ் 灯台 등대 Αλμύρα");
        for (var family :
                List.of("Noto Sans Thai", "Noto Sans Bengali", "Noto Sans Tamil", "Noto Sans SC", "Noto Sans KR")) {
            assertEquals(family, Font.font(family, 14).getFamily());
        }
    }

    @Test
    void joinedEmojiStayInOnePiece() {
        assertEquals(List.of("👩‍🚒 ", "ok"), runs(UserText.paragraph("👩‍🚒 ok")));
    }

    @Test
    void textThatStartsRightToLeftRunsThatWay() {
        var arabic = (HBox) UserText.line("نور Said").getChildren().getFirst();
        assertEquals(NodeOrientation.RIGHT_TO_LEFT, arabic.getNodeOrientation());
        var latin = (HBox) UserText.line("Said نور").getChildren().getFirst();
        assertEquals(NodeOrientation.LEFT_TO_RIGHT, latin.getNodeOrientation());
    }

    @Test
    void workComesBackToTheInterfaceThreadHoweverItEnds() throws Exception {
        var told = new ArrayList<Problem>();
        var ends = new CountDownLatch(4);
        var results = new ArrayList<String>();
        var work = new Work(problem -> {
            assertTrue(Platform.isFxApplicationThread());
            told.add(problem);
        });
        work.start("good", () -> "done", results::add, ends::countDown);
        work.start(
                "told",
                () -> {
                    throw new ProblemException(Problem.failure("x", "torn", "mend it"));
                },
                r -> {},
                ends::countDown);
        work.start(
                "unexpected",
                () -> {
                    throw new IOException("boom");
                },
                r -> {},
                ends::countDown);
        work.start(
                "stopped",
                () -> {
                    throw new CancellationException();
                },
                r -> {},
                ends::countDown);

        assertTrue(ends.await(10, TimeUnit.SECONDS));

        assertEquals(List.of("done"), results);
        assertEquals(2, told.size(), "stopping is no trouble");
        assertTrue(told.stream().anyMatch(p -> p.what().equals("torn")));
        assertTrue(told.stream()
                .anyMatch(p ->
                        p.subject().equals("unexpected") && p.advice().contains("Nothing that was saved is lost")));
    }
}
