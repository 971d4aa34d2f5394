package app.custodex.desktop;

import app.custodex.app.Custodex;
import app.custodex.app.DemoHistory;
import app.custodex.app.Home;
import app.custodex.app.Sources;
import app.custodex.base.Problem;
import app.custodex.base.RealDisk;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.drawer.PracticeWindow;
import app.custodex.desktop.ui.Fonts;
import app.custodex.desktop.ui.MessageBar;
import app.custodex.desktop.ui.Theme;
import app.custodex.desktop.ui.Veil;
import app.custodex.desktop.ui.Words;
import app.custodex.desktop.ui.Work;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import java.time.ZoneId;
import java.util.Locale;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.function.Consumer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.stage.Stage;

/** The composition root: puts the application together and shows its window. */
public final class App extends Application {
    private Optional<Options> options = Optional.empty();
    private Optional<Prepared> prepared = Optional.empty();
    private Optional<Problem> refused = Optional.empty();
    private Optional<Workplace> workplace = Optional.empty();

    /** Runs before the interface thread has anything to do, so it may take its time. */
    @Override
    public void init() throws IOException {
        try {
            options = Optional.of(Options.parse(getParameters().getRaw()));
        } catch (IllegalArgumentException e) {
            System.err.println(e.getMessage());
            return;
        }
        if (options.get().fresh() && !throwAway(options.get().home())) {
            options = Optional.empty();
            return;
        }
        try {
            prepared = Optional.of(open());
        } catch (IOException e) {
            refused = Optional.of(FrontDoor.problem(e, options.get().home()));
        }
    }

    private Prepared open() throws IOException {
        return Prepared.open(
                options.orElseThrow().home(),
                options.orElseThrow().demo() ? Optional.of(Contents.DEMO) : Optional.empty());
    }

    /** Starts a demo over. A folder that is no demo's is not touched, whatever was asked for. */
    private static boolean throwAway(Home home) throws IOException {
        if (Files.exists(home.root()) && !Files.exists(home.demoMark())) {
            System.err.println(
                    home.root() + " is not the home of a demo, so it was not deleted. Name another folder with --home,"
                            + " or delete it yourself.");
            return false;
        }
        new RealDisk().delete(home.root());
        return true;
    }

    @Override
    public void start(Stage stage) throws IOException {
        if (prepared.isPresent()) {
            workplace = Optional.of(Workplace.show(stage, prepared.get()).withHistory());
        } else if (refused.isPresent()) {
            showFrontDoor(
                    stage,
                    options.orElseThrow().home(),
                    refused.get(),
                    this::open,
                    opened -> workplace =
                            Optional.of(Workplace.show(stage, opened).withHistory()));
        } else {
            Platform.exit();
        }
    }

    /** Shows the way in when the home could not be opened; gives its scene. */
    public static Scene showFrontDoor(
            Stage stage, Home home, Problem problem, FrontDoor.Opening opening, Consumer<Prepared> opened) {
        Fonts.load();
        Theme.apply(false);
        var scene = new Scene(new FrontDoor(home, problem, opening, opened).view(), 1280, 800);
        Theme.dress(scene);
        stage.setScene(scene);
        stage.setTitle("Custodex");
        stage.show();
        return scene;
    }

    @Override
    public void stop() {
        workplace.ifPresent(Workplace::close);
        // The link's worker threads would keep the program alive for another minute.
        System.exit(0);
    }

    /** What lies behind the window: made before it is shown. */
    public record Prepared(Custodex custodex, Optional<PracticeDrawer> drawer) {
        /** @param demo what the practice phones hold that are to be plugged in, if any */
        public static Prepared open(Home home, Optional<Contents> demo) throws IOException {
            return open(home, demo, Clock.systemUTC());
        }

        static Prepared open(Home home, Optional<Contents> demo, Clock clock) throws IOException {
            if (demo.isPresent()) {
                home.markAsDemoIfNew();
            }
            Optional<PracticeDrawer> drawer =
                    demo.isPresent() ? Optional.of(plugIn(home, demo.get())) : Optional.empty();
            try {
                return new Prepared(Custodex.open(home, clock), drawer);
            } catch (IOException | RuntimeException e) {
                drawer.ifPresent(PracticeDrawer::close);
                throw e;
            }
        }

        private static PracticeDrawer plugIn(Home home, Contents contents) throws IOException {
            var drawer = ServiceLoader.load(PracticeDrawer.Provider.class)
                    .findFirst()
                    .orElseThrow(() -> new IOException("this Custodex was built without practice phones"))
                    .open(home.practice(), contents);
            for (var phone : drawer.phones()) {
                phone.plugIn();
                Sources.of(home).rememberPhone(phone.family().code(), phone.address());
            }
            return drawer;
        }
    }

    /** Everything behind one window that is shown. */
    public record Workplace(
            Desk desk,
            Optional<PracticeDrawer> drawer,
            Scene scene,
            Optional<PracticeWindow> practice,
            Optional<DemoHistory> history)
            implements AutoCloseable {
        /** Builds the window's content and shows it. */
        public static Workplace show(Stage stage, Prepared prepared) {
            Fonts.load();
            Theme.apply(false);
            var veil = new Veil();
            var messages = new MessageBar(veil);
            var work = new Work(messages::show);
            var desk =
                    new Desk(prepared.custodex(), new Words(Locale.getDefault(), ZoneId.systemDefault()), work, veil);
            var practice = prepared.drawer().map(d -> new PracticeWindow(d, desk, stage));
            var shell = new Shell(desk, messages, practice);
            var scene = new Scene(shell, 1280, 800);
            Theme.dress(scene);
            shell.addShortcuts(scene);
            stage.setScene(scene);
            stage.setTitle("Custodex");
            stage.setMinWidth(1024);
            stage.setMinHeight(680);
            stage.show();
            desk.start();
            desk.work().start("Settings", () -> desk.custodex().settings().look(), shell::show);
            return new Workplace(desk, prepared.drawer(), scene, practice, Optional.empty());
        }

        /** The same, with a past that is made behind it. */
        public Workplace withHistory() {
            var made = drawer.flatMap(phones -> DemoHistory.start(
                    desk.custodex().home(), phones, () -> Platform.runLater(desk::refreshHoldings), desk.work()::tell));
            return new Workplace(desk, drawer, scene, practice, made);
        }

        /** Light paper, or the dark bench. */
        public void night(boolean on) {
            ((Shell) scene.getRoot()).night(on);
        }

        @Override
        public void close() {
            history.ifPresent(DemoHistory::close);
            practice.ifPresent(PracticeWindow::close);
            desk.close();
            drawer.ifPresent(PracticeDrawer::close);
        }
    }
}
