package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.model.Contact;
import app.custodex.twins.Merge;
import app.custodex.twins.MergeProposal;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is picked in the open layer, by its numbers, and how contacts of it are merged; kept at once, so that it is there again later. Interface thread only. */
final class TrayModel {
    static final Problem STILL_READING =
            Problem.note("Tray", "The layer is still being read for the first time", "Pick when all of it is there");

    private final Desk desk;
    /** Never changed once it is in here. */
    private final ObjectProperty<BitSet> picked = new SimpleObjectProperty<>(new BitSet());

    private final ObjectProperty<List<Merge>> merges = new SimpleObjectProperty<>(List.of());

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

    /** Shows what was picked in a layer before, and how contacts of it were merged. */
    void enter(OpenPhone phone, BitSet before, List<Merge> merged) {
        keeping = Optional.of(new Keeping(phone));
        picked.set(before);
        merges.set(List.copyOf(merged));
    }

    /** How contacts are to be written as one. */
    ReadOnlyObjectProperty<List<Merge>> merges() {
        return merges;
    }

    /** How these contacts are to be written as one; empty when that was not settled. */
    Optional<Merge> mergeOf(List<Contact> contacts) {
        var ids = contacts.stream().map(Contact::id).toList();
        return merges.get().stream().filter(merge -> merge.of().equals(ids)).findFirst();
    }

    /** Settles how contacts are to be written as one; what was settled of any of them before is dropped. */
    void merge(Merge merge) {
        var next = new ArrayList<>(merges.get());
        next.removeIf(other -> !Collections.disjoint(other.of(), merge.of()));
        next.add(merge);
        keepMerges(next);
    }

    /** Contacts are to be written each by itself again. */
    void unmerge(List<Contact> contacts) {
        var next = new ArrayList<>(merges.get());
        mergeOf(contacts).ifPresent(next::remove);
        keepMerges(next);
    }

    /** Contacts as one where that was settled and all of them are among these. */
    List<Contact> merged(List<Contact> apart) {
        return MergeProposal.merged(apart, merges.get());
    }

    private void keepMerges(List<Merge> now) {
        if (keeping.isEmpty()) {
            desk.work().tell(STILL_READING);
        } else {
            merges.set(List.copyOf(now));
            keeping.get().keep(picked.get(), merges.get());
        }
    }

    /** @return completes when what was picked is kept: until then the layer has to stay open */
    CompletableFuture<Void> leave() {
        var last = keeping.map(Keeping::last).orElse(CompletableFuture.completedFuture(null));
        keeping = Optional.empty();
        picked.set(new BitSet());
        merges.set(List.of());
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
            keeping.get().keep(now, merges.get());
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

        void keep(BitSet now, List<Merge> merged) {
            int mine = ++version;
            var done = new CompletableFuture<Void>();
            last = done;
            desk.work().start("The tray", () -> write(mine, now, merged), kept -> {}, () -> done.complete(null));
        }

        private synchronized boolean write(int mine, BitSet now, List<Merge> merged) throws IOException {
            if (mine == version) {
                desk.custodex().trays().save(phone, now);
                desk.custodex().trays().saveMerges(phone, merged);
            }
            return true;
        }
    }
}
