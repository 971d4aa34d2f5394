package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.desktop.Desk;
import java.util.BitSet;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is picked in the open layer, by its numbers; kept at once, so that it is there again later. Interface thread only. */
final class TrayModel {
    private final Desk desk;
    /** Never changed once it is in here. */
    private final ObjectProperty<BitSet> picked = new SimpleObjectProperty<>(new BitSet());

    private Optional<OpenPhone> open = Optional.empty();
    private volatile int version;

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
        open = Optional.of(phone);
        version++;
        picked.set(before);
    }

    void leave() {
        open = Optional.empty();
        version++;
        picked.set(new BitSet());
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

    void clear() {
        change(new BitSet());
    }

    private BitSet copy() {
        return (BitSet) picked.get().clone();
    }

    private void change(BitSet now) {
        if (open.isEmpty() || now.equals(picked.get())) {
            return;
        }
        picked.set(now);
        int mine = ++version;
        var phone = open.get();
        desk.work()
                .start(
                        "The tray",
                        () -> {
                            if (mine == version) { // else a later one is kept
                                desk.custodex().trays().save(phone, now);
                            }
                            return now;
                        },
                        kept -> {});
    }
}
