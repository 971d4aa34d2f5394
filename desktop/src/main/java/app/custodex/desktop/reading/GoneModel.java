package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Comparison.Change;
import app.custodex.catalogue.Comparison.Difference;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.Desk.Compared;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Two states of a phone beside each other, and what became of what was in the older one. Interface thread only. */
final class GoneModel {
    private static final Logger LOG = LoggerFactory.getLogger(GoneModel.class);

    /**
     * Both are open.
     *
     * @param differences by kind
     */
    record Open(Compared of, OpenPhone older, OpenPhone newer, List<Difference> differences) {
        int count(Change change) {
            return (int) differences.stream()
                    .filter(difference -> difference.change() == change)
                    .count();
        }

        /** The numbers of what is gone, in the older one. */
        BitSet gone() {
            var numbers = new BitSet();
            differences.stream()
                    .filter(difference -> difference.change() == Change.GONE)
                    .forEach(difference -> numbers.set((int) difference.before().getAsLong()));
            return numbers;
        }
    }

    private final Desk desk;
    private final ObjectProperty<Optional<Open>> open = new SimpleObjectProperty<>(Optional.empty());
    private int asked;

    GoneModel(Desk desk) {
        this.desk = desk;
    }

    ReadOnlyObjectProperty<Optional<Open>> open() {
        return open;
    }

    /** @param failed is run when it can't be done, after the reason was told */
    void compare(Compared states, Runnable failed) {
        int mine = ++asked;
        close();
        var bay = bay(states);
        desk.work()
                .start(
                        states.phone().name(),
                        () -> compared(states, bay),
                        result -> {
                            if (mine == asked) {
                                open.set(Optional.of(result));
                            } else {
                                close(result);
                            }
                        },
                        () -> {
                            if (mine == asked && open.get().isEmpty()) {
                                failed.run();
                            }
                        });
    }

    /** Where the phone is plugged in and ready, if it is. */
    Optional<BayModel> bay(Compared states) {
        return desk.bays().stream()
                .filter(BayModel::ready)
                .filter(bay -> bay.phone()
                        .filter(phone ->
                                phone.identifier().equals(states.phone().identifier()))
                        .isPresent())
                .findFirst();
    }

    private Open compared(Compared states, Optional<BayModel> bay) throws IOException {
        var older = layer(states, states.older());
        try {
            var newer = states.newer() > 0 ? layer(states, states.newer()) : asItIsNow(states, bay);
            try {
                var differences = newer.since(older, Set.of()).differences().stream()
                        .sorted(Comparator.comparing(difference -> KindGroup.of(difference.kind())))
                        .toList();
                return new Open(states, older, newer, differences);
            } catch (IOException | RuntimeException e) {
                newer.close();
                throw e;
            }
        } catch (IOException | RuntimeException e) {
            older.close();
            throw e;
        }
    }

    private OpenPhone layer(Compared states, int number) throws IOException {
        var custodex = desk.custodex();
        var mandate = custodex.gate().mandateFor(states.phone());
        return custodex.reading()
                .open(mandate, states.phone().identifier(), number, desk.words().locale());
    }

    private OpenPhone asItIsNow(Compared states, Optional<BayModel> bay) throws IOException {
        var there = bay.orElseThrow(() -> new ProblemException(Problem.failure(
                states.phone().name(), "It is not plugged in and ready", "Plug it in, or choose a layer")));
        var custodex = desk.custodex();
        return custodex.straight()
                .open(
                        custodex.gate().mandateFor(states.phone()),
                        there.bay(),
                        desk.words().locale(),
                        Optional.empty(),
                        things -> {},
                        new CancelToken());
    }

    /** Puts things of the older state into the tray of its layer, beside what is in it. */
    void putInTray(BitSet numbers) {
        open.get()
                .ifPresent(in -> desk.work().start("Tray", () -> put(in.older(), numbers), count -> {
                    desk.trayChanged();
                    var words = desk.words().count(count, "thing is", "things are");
                    desk.work()
                            .tell(Problem.note(
                                    "Tray",
                                    words + " in the tray of layer " + in.of().older(),
                                    "Open that layer to take them out"));
                }));
    }

    private int put(OpenPhone layer, BitSet numbers) throws IOException {
        var trays = desk.custodex().trays();
        var tray = trays.load(layer);
        tray.or(numbers);
        trays.save(layer, tray);
        return numbers.cardinality();
    }

    void leave() {
        asked++;
        close();
    }

    private void close() {
        var was = open.get();
        open.set(Optional.empty());
        was.ifPresent(GoneModel::close);
    }

    private static void close(Open both) {
        Thread.ofVirtual().start(() -> {
            try (var older = both.older();
                    var newer = both.newer()) {
                LOG.debug(
                        "closing {} and {}", older.phone().name(), newer.phone().name());
            } catch (IOException e) {
                LOG.warn("closing what was compared", e);
            }
        });
    }
}
