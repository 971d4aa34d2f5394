package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.app.ReadingProgress;
import app.custodex.base.CancelToken;
import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.Desk;
import app.custodex.model.Contact;
import app.custodex.model.ThingKind;
import app.custodex.search.ContactIndex;
import app.custodex.twins.Merge;
import java.io.IOException;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import javafx.application.Platform;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What the reading room shows of a layer, and what has been picked from it. Touched on the interface thread only. */
final class ReadingModel {
    private static final Logger LOG = LoggerFactory.getLogger(ReadingModel.class);

    /** Which contacts are looked at. */
    sealed interface Lens {
        record Everyone() implements Lens {}

        record Group(String name) implements Lens {}

        record WithPhoto() implements Lens {}
    }

    private final Desk desk;
    private final ObjectProperty<Optional<OpenPhone>> layer = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<ContactIndex>> contacts = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<List<Contact>> shown = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<Lens> lens = new SimpleObjectProperty<>(new Lens.Everyone());
    private final TrayModel tray;
    /** Whether the layer is still being read for the first time: it is closed by whoever reads it. */
    private boolean growing;

    private String typed = "";
    private boolean descending;
    private int asked;
    private int openings;

    ReadingModel(Desk desk) {
        this.desk = desk;
        this.tray = new TrayModel(desk);
        desk.trayChanges().addListener((o, was, is) -> lookIntoTrayAgain());
    }

    /** What is picked in the open layer. */
    TrayModel tray() {
        return tray;
    }

    /** The open layer. */
    ObjectProperty<Optional<OpenPhone>> layer() {
        return layer;
    }

    /** All contacts of the open layer; empty until they are read. */
    ReadOnlyObjectProperty<Optional<ContactIndex>> contacts() {
        return contacts;
    }

    /** What the list shows at the moment. */
    ObjectProperty<List<Contact>> shown() {
        return shown;
    }

    ObjectProperty<Lens> lens() {
        return lens;
    }

    /** Whether the open layer is still being read for the first time. */
    boolean isGrowing() {
        return growing;
    }

    /**
     * Opens a layer, unless it is the one that is open.
     *
     * @param progress is told how many things were read, while they are read for the first time
     * @param refused is run when it can't be opened, after the reason was told
     * @param then is run when it is open: as soon as its contacts are read, and again when all of it is
     */
    void open(Desk.Reading target, ReadingProgress progress, Runnable refused, Runnable then) {
        var same = layer.get()
                .filter(open -> target.straight().isEmpty()
                        && open.layer()
                                .filter(of -> of.number() == target.layer())
                                .isPresent()
                        && open.phone().identifier().equals(target.phone().identifier()));
        if (same.isPresent()) {
            then.run();
            return;
        }
        closeLayer();
        int mine = openings;
        desk.work()
                .start(
                        target.straight().isPresent()
                                ? target.phone().name()
                                : "Layer " + target.layer() + " of "
                                        + target.phone().name(),
                        () -> {
                            var opened = open(target, progress(mine, progress, then));
                            opened.problems(Set.of(ThingKind.CONTACT)).stream()
                                    .findFirst()
                                    .ifPresent(desk.work()::tell);
                            return new Opened(opened, kept(opened));
                        },
                        opened -> {
                            if (mine != openings) {
                                close(opened.phone()); // another one was chosen meanwhile
                                return;
                            }
                            show(opened.phone(), false);
                            tray.enter(
                                    opened.phone(),
                                    opened.kept().tray(),
                                    opened.kept().merges());
                            then.run();
                        },
                        () -> {
                            if (mine == openings && (growing || layer.get().isEmpty())) {
                                closeLayer(); // a part of it that was there already is not all of it
                                refused.run();
                            }
                        });
    }

    /** Tells on the interface thread what is read, as long as nothing else is opened. */
    private ReadingProgress progress(int mine, ReadingProgress progress, Runnable then) {
        return new ReadingProgress() {
            @Override
            public void read(long things) {
                onInterface(() -> progress.read(things));
            }

            @Override
            public void usable(OpenPhone early) {
                onInterface(() -> {
                    show(early, true);
                    then.run();
                });
            }

            private void onInterface(Runnable action) {
                Platform.runLater(() -> {
                    if (mine == openings) {
                        action.run();
                    }
                });
            }
        };
    }

    private void show(OpenPhone phone, boolean stillGrowing) {
        if (!growing) {
            lens.set(new Lens.Everyone());
            typed = "";
        }
        growing = stillGrowing;
        layer.set(Optional.of(phone));
    }

    /** Reads and sorts all contacts, for which nothing else in the room has to wait. */
    void readContacts() {
        layer.get()
                .ifPresent(open -> desk.work().start("Contacts", open::contacts, sorted -> {
                    if (layer.get().equals(Optional.of(open))) {
                        contacts.set(Optional.of(sorted));
                        refresh();
                    }
                }));
    }

    /** What was picked before, and merged. */
    private record Kept(BitSet tray, List<Merge> merges) {}

    private record Opened(OpenPhone phone, Kept kept) {}

    private Kept kept(OpenPhone opened) throws IOException {
        var trays = desk.custodex().trays();
        var picked = new BitSet();
        try {
            picked = trays.load(opened);
        } catch (ProblemException damaged) {
            desk.work().tell(damaged.problem());
        }
        try {
            return new Kept(picked, trays.merges(opened));
        } catch (ProblemException damaged) {
            desk.work().tell(damaged.problem());
            return new Kept(picked, List.of());
        }
    }

    private void lookIntoTrayAgain() {
        layer.get()
                .filter(open -> !growing)
                .ifPresent(open -> desk.work().start("Tray", () -> kept(open), found -> {
                    if (layer.get().equals(Optional.of(open))) {
                        tray.enter(open, found.tray(), found.merges());
                    }
                }));
    }

    private OpenPhone open(Desk.Reading target, ReadingProgress progress) throws IOException {
        var custodex = desk.custodex();
        var mandate = custodex.gate().mandateFor(target.phone());
        var locale = desk.words().locale();
        if (target.straight().isPresent()) {
            return custodex.straight()
                    .open(mandate, target.straight().get(), locale, Optional.empty(), progress, new CancelToken());
        }
        return custodex.reading().open(mandate, target.phone().identifier(), target.layer(), locale, progress);
    }

    void closeLayer() {
        openings++;
        var open = layer.get().filter(any -> !growing);
        growing = false;
        layer.set(Optional.empty());
        contacts.set(Optional.empty());
        var kept = tray.leave();
        shown.set(List.of());
        open.ifPresent(old -> kept.thenRun(() -> close(old)));
    }

    private static void close(OpenPhone old) {
        Thread.ofVirtual().start(() -> {
            try {
                old.close();
            } catch (IOException e) {
                LOG.warn("closing a layer", e);
            }
        });
    }

    void type(String newTyped) {
        typed = newTyped;
        refresh();
    }

    boolean descending() {
        return descending;
    }

    void turnOrder() {
        descending = !descending;
        refresh();
    }

    void look(Lens newLens) {
        lens.set(newLens);
        refresh();
    }

    /** Finds anew; an answer that was overtaken by a later question is dropped. */
    private void refresh() {
        var open = layer.get();
        if (open.isEmpty() || contacts.get().isEmpty()) {
            return;
        }
        int question = ++asked;
        var words = typed;
        var through = lens.get();
        boolean backwards = descending;
        var all = contacts.get().get();
        desk.work().start("Find", () -> find(all, words, through, backwards), found -> {
            if (question == asked) {
                shown.set(found);
            }
        });
    }

    private static List<Contact> find(ContactIndex all, String words, Lens lens, boolean backwards) {
        var found = all.find(words);
        var seen = switch (lens) {
            case Lens.Everyone everyone -> found;
            case Lens.Group group ->
                found.stream().filter(c -> c.groups().contains(group.name())).toList();
            case Lens.WithPhoto photo ->
                found.stream().filter(Contact::hasPhoto).toList();
        };
        return backwards ? seen.reversed() : seen;
    }

    /** How many contacts each group has, by name. */
    Map<String, Integer> groups() {
        var groups = new TreeMap<String, Integer>();
        contacts.get()
                .ifPresent(all -> all.ascending()
                        .forEach(contact -> contact.groups().forEach(group -> groups.merge(group, 1, Integer::sum))));
        return groups;
    }

    /** Whether the list is empty because there is nothing, rather than because nothing was found. */
    boolean hasNoContacts() {
        return contacts.get().filter(all -> all.ascending().isEmpty()).isPresent();
    }

    boolean isPicked(Contact contact) {
        return layer.get().filter(open -> tray.has(open.number(contact))).isPresent();
    }

    void pick(Contact contact, boolean on) {
        var numbers = numbers(List.of(contact));
        if (on) {
            tray.put(numbers);
        } else {
            tray.takeOut(numbers);
        }
    }

    void pickAllShown() {
        tray.put(numbers(shown.get()));
    }

    private BitSet numbers(List<Contact> contacts) {
        var numbers = new BitSet();
        layer.get().ifPresent(open -> contacts.forEach(contact -> numbers.set(open.number(contact))));
        return numbers;
    }

    /** Of the contacts that the list shows. */
    int[] numbersShown() {
        return layer.get().stream()
                .flatMapToInt(open -> shown.get().stream().mapToInt(open::number))
                .toArray();
    }
}
