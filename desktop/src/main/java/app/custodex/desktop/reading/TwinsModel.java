package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.model.Thing;
import app.custodex.twins.TwinSet;
import app.custodex.twins.Twins;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import javafx.application.Platform;

/** The search for what is in a layer more than once, which goes on behind the window. Interface thread only. */
final class TwinsModel {
    /** A set with what is in it, in its order. */
    record Found(TwinSet set, List<Thing> things) {}

    /** Told what there is. */
    interface Listener {
        void found(List<Found> more);

        void problem(Problem problem);

        void looked(int pictures);

        void ended(boolean stopped);
    }

    private final Desk desk;
    private final Listener listener;
    private Optional<CancelToken> running = Optional.empty();

    TwinsModel(Desk desk, Listener listener) {
        this.desk = desk;
        this.listener = listener;
    }

    void start(OpenPhone phone) {
        stop();
        var cancel = new CancelToken();
        running = Optional.of(cancel);
        desk.work()
                .start(
                        "Twins",
                        () -> search(phone, cancel),
                        stopped -> {
                            if (running.equals(Optional.of(cancel))) {
                                running = Optional.empty();
                                listener.ended(stopped);
                            }
                        },
                        () -> {
                            if (running.equals(Optional.of(cancel))) { // it failed, which was told
                                running = Optional.empty();
                                listener.ended(true);
                            }
                        });
    }

    /** What was found until now stays. */
    void stop() {
        var now = running;
        running = Optional.empty();
        now.ifPresent(CancelToken::cancel);
    }

    /** @return whether it was stopped before its end */
    private boolean search(OpenPhone phone, CancelToken cancel) throws IOException {
        try {
            phone.twins(
                    new Twins.Listener() {
                        @Override
                        public void found(List<TwinSet> sets) {
                            var more = named(phone, sets);
                            tell(cancel, () -> listener.found(more));
                        }

                        @Override
                        public void problem(Problem problem) {
                            tell(cancel, () -> listener.problem(problem));
                        }

                        @Override
                        public void looked(int pictures) {
                            tell(cancel, () -> listener.looked(pictures));
                        }
                    },
                    cancel);
            return false;
        } catch (CancellationException stopped) {
            return true;
        } catch (IOException closed) {
            if (cancel.isCancelled()) {
                return true; // the layer was closed meanwhile
            }
            throw closed;
        }
    }

    private static void tell(CancelToken of, Runnable what) {
        Platform.runLater(() -> {
            if (!of.isCancelled()) {
                what.run();
            }
        });
    }

    private static List<Found> named(OpenPhone phone, List<TwinSet> sets) {
        try {
            var found = new ArrayList<Found>();
            for (var set : sets) {
                var entries = phone.catalogue()
                        .read(set.numbers().stream().mapToLong(n -> n).toArray());
                found.add(new Found(
                        set, entries.stream().map(entry -> entry.thing()).toList()));
            }
            return found;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
