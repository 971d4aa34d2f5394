package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import java.io.IOException;
import java.util.BitSet;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is picked in the open layer, by its numbers; kept at once, so that it is there again later. Interface thread only. */
final class TrayModel {
    static final Problem STILL_READING =
            Problem.note("Tray", "The layer is still being read for the first time", "Pick when all of it is there");

    private final Desk desk;
    /** Never changed once it is in here. */
    private final ObjectProperty<BitSet> picked = new SimpleObjectProperty<>(new BitSet());

    private Optional<Keeping> keeping = Optional.empty();

    TrayModel(Desk desk) {
        this.desk = desk;
    }

    ReadOnlyObjectProperty<BitSet> picked() {
        return picked;
    }

    boolean has(long number) {
        return picked.get().get((int) number);
    }

    /** Shows what was picked in a layer before. */
    void enter(OpenPhone phone, BitSet before) {
        keeping = Optional.of(new Keeping(phone));
        picked.set(before);
    }

    /** @return completes when what was picked is kept: until then the layer has to stay open */
    CompletableFuture<Void> leave() {
        var last = keeping.map(Keeping::last).orElse(CompletableFuture.completedFuture(null));
        keeping = Optional.empty();
        picked.set(new BitSet());
        return last;
    }

    void put(BitSet numbers) {
        var now = copy();
        now.or(numbers);
        change(now);
    }

    void takeOut(BitSet numbers) {
        var now = copy();
        now.andNot(numbers);
        change(now);
    }

    /** Puts them in, or takes them out when all of them are in it. */
    void toggle(BitSet numbers) {
        var missing = (BitSet) numbers.clone();
        missing.andNot(picked.get());
        if (missing.isEmpty()) {
            takeOut(numbers);
        } else {
            put(numbers);
        }
    }

    void toggle(long number) {
        var numbers = new BitSet();
        numbers.set((int) number);
        toggle(numbers);
    }

    void clear() {
        change(new BitSet());
    }

    private BitSet copy() {
        return (BitSet) picked.get().clone();
    }

    private void change(BitSet now) {
        if (keeping.isEmpty()) {
            desk.work().tell(STILL_READING);
        } else if (!now.equals(picked.get())) {
            picked.set(now);
            keeping.get().keep(now);
        }
    }

    /** Writes the tray of one layer; of several changes that wait, only the last. */
    private final class Keeping {
        private final OpenPhone phone;
        private volatile int version;
        private CompletableFuture<Void> last = CompletableFuture.completedFuture(null);

        Keeping(OpenPhone phone) {
            this.phone = phone;
        }

        CompletableFuture<Void> last() {
            return last;
        }

        void keep(BitSet now) {
            int mine = ++version;
            var done = new CompletableFuture<Void>();
            last = done;
            desk.work().start("The tray", () -> write(mine, now), kept -> {}, () -> done.complete(null));
        }

        private synchronized boolean write(int mine, BitSet now) throws IOException {
            if (mine == version) {
                desk.custodex().trays().save(phone, now);
            }
            return true;
        }
    }
}
