package app.custodex.desktop.ui;

import java.util.function.Consumer;
import javafx.animation.PauseTransition;
import javafx.util.Duration;

/** Takes the last of several values that follow one another quickly, as when a list is gone through with a key held down. */
public final class Rest<T> {
    private static final Duration LENGTH = Duration.millis(60);

    private final PauseTransition pause = new PauseTransition(LENGTH);
    private final Consumer<T> taker;

    public Rest(Consumer<T> taker) {
        this.taker = taker;
    }

    /** The taker gets it unless another one comes soon. */
    public void take(T value) {
        pause.stop();
        pause.setOnFinished(event -> taker.accept(value));
        pause.play();
    }

    /** What waits is dropped. */
    public void drop() {
        pause.stop();
    }
}
