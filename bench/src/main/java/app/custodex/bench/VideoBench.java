package app.custodex.bench;

import app.custodex.desktop.media.FilmView;
import app.custodex.media.StreamSource;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/**
 * A video of 720 lines and 25 pictures a second in a real window: how far what is shown lags behind its clock. The video is made by ffmpeg.
 * Needs a display. Argument: seconds.
 */
public final class VideoBench {
    private VideoBench() {}

    public static void main(String[] args) throws Exception {
        Window.seconds = Side.number(args, 0, 12);
        Side.inFolder(folder -> {
            Window.video = folder.resolve("video.mp4");
            Side.run(List.of(
                    "ffmpeg",
                    "-v",
                    "error",
                    "-f",
                    "lavfi",
                    "-i",
                    "testsrc2=s=1280x720:r=25:d=" + Window.seconds + ",noise=alls=8:allf=t",
                    "-c:v",
                    "libx264",
                    "-preset",
                    "fast",
                    "-b:v",
                    "4M",
                    "-pix_fmt",
                    "yuv420p",
                    Window.video.toString()));
            Application.launch(Window.class);
        });
        System.exit(0);
    }

    /** The window with the video. */
    public static final class Window extends Application {
        static int seconds;
        static Path video = Path.of("");

        private final List<Long> late = new ArrayList<>();
        private Optional<Duration> last = Optional.empty();
        private long began;

        private Duration clock() {
            return began == 0 ? Duration.ZERO : Duration.ofNanos(System.nanoTime() - began);
        }

        @Override
        public void start(Stage stage) throws Exception {
            var source = new StreamSource(Files.size(video), () -> Files.newInputStream(video));
            var film = new FilmView(source, this::clock, 1280, 800, Throwable::printStackTrace);
            stage.setScene(new Scene(new StackPane(film), 1280, 800));
            stage.show();
            film.show(Duration.ZERO, true);
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    measure(film);
                }
            }.start();
        }

        /** Each pulse: the clock begins with the first picture, as the sound does. */
        private void measure(FilmView film) {
            var shown = film.shown();
            if (began == 0 && shown.isPresent()) {
                began = System.nanoTime();
            }
            if (!shown.equals(last)) {
                last = shown;
                shown.ifPresent(at -> late.add(clock().minus(at).toMillis()));
            }
            if (clock().compareTo(Duration.ofSeconds(seconds)) > 0) {
                tell();
                Platform.exit();
            }
        }

        private void tell() {
            var sorted = late.stream().mapToLong(ms -> ms).sorted().toArray();
            System.out.printf(
                    Locale.ROOT,
                    "720 lines at 25 a second in the window: %d of %d pictures shown; behind the clock at the median %d ms,"
                            + " at the 99th percentile %d ms, at most %d ms%n",
                    sorted.length,
                    25 * seconds,
                    sorted[sorted.length / 2],
                    sorted[sorted.length * 99 / 100],
                    sorted[sorted.length - 1]);
        }
    }
}
