package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.catalogue.Catalogue.Names;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.Spine;
import app.custodex.catalogue.Spine.Seen;
import app.custodex.catalogue.Spine.Span;
import app.custodex.catalogue.Spine.View;
import app.custodex.catalogue.Trait;
import app.custodex.catalogue.Traits;
import app.custodex.desktop.desk.Desk;
import app.custodex.model.Conversation;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/** What is looked at in an open layer: a stretch of time, kinds, a person, words; all of them together. Interface thread only. */
final class RoomModel {
    /** A layer with what every view of it needs at hand. */
    record Room(OpenPhone phone, Spine spine, Traits traits, List<InTouch> people, Names names) {
        static Room of(OpenPhone phone) throws IOException {
            var catalogue = phone.catalogue();
            var spine = catalogue.spine();
            return new Room(phone, spine, catalogue.traits(spine), catalogue.inTouch(), phone.names());
        }

        /** The same person, who may have another number there now; found by an address. */
        Optional<InTouch> again(InTouch who) {
            return people.stream()
                    .filter(other -> !Collections.disjoint(
                            other.person().addresses(), who.person().addresses()))
                    .findFirst();
        }
    }

    /**
     * A conversation that is open.
     *
     * @param at the number of the message at which it was opened
     */
    record Talk(Conversation conversation, Optional<Long> at) {}

    /**
     * What is asked for.
     *
     * @param within a stretch of time; empty for the whole layer
     * @param groups empty for all
     * @param typed words; may be empty
     * @param attached whether only what something hangs on
     * @param only to what the list is narrowed; empty for nothing
     * @param picked whether only what is in the tray
     */
    record Asked(
            Optional<Span> within,
            Set<KindGroup> groups,
            Optional<InTouch> person,
            Optional<Talk> conversation,
            String typed,
            boolean attached,
            Set<Trait> only,
            boolean picked) {
        static final Asked EVERYTHING =
                new Asked(Optional.empty(), Set.of(), Optional.empty(), Optional.empty(), "", false, Set.of(), false);

        Asked {
            groups = groups.isEmpty() ? Set.of() : Set.copyOf(groups);
            only = Set.copyOf(only);
        }

        Asked within(Optional<Span> newWithin) {
            return new Asked(newWithin, groups, person, conversation, typed, attached, only, picked);
        }

        /** Other kinds; what lists of one kind are narrowed to means nothing for another. */
        Asked groups(Set<KindGroup> newGroups) {
            return new Asked(within, newGroups, person, conversation, typed, attached, Set.of(), picked);
        }

        Asked only(Set<Trait> newOnly) {
            return new Asked(within, groups, person, conversation, typed, attached, newOnly, picked);
        }

        Asked person(Optional<InTouch> newPerson) {
            return of(newPerson).conversation(Optional.empty());
        }

        private Asked of(Optional<InTouch> newPerson) {
            return new Asked(within, groups, newPerson, conversation, typed, attached, only, picked);
        }

        Asked conversation(Optional<Talk> newConversation) {
            return new Asked(within, groups, person, newConversation, typed, attached, only, picked);
        }

        Asked typed(String newTyped) {
            return new Asked(within, groups, person, conversation, newTyped, attached, only, picked);
        }

        Asked attached(boolean newAttached) {
            return new Asked(within, groups, person, conversation, typed, newAttached, only, picked);
        }

        Asked picked(boolean newPicked) {
            return new Asked(within, groups, person, conversation, typed, attached, only, newPicked);
        }

        /** Whether the answer to the other one's words, person and conversation does for this one. */
        private boolean sameNumbers(Asked other) {
            return person.equals(other.person)
                    && conversation.equals(other.conversation)
                    && typed.equals(other.typed)
                    && attached == other.attached;
        }
    }

    /**
     * The answer.
     *
     * @param numbers the things of the person, conversation, words and tray, whenever they are; empty for all
     */
    record Answer(Asked asked, Seen seen, Optional<BitSet> numbers) {}

    private final Desk desk;
    private final TrayModel tray;
    private final ObjectProperty<Optional<Room>> room = new SimpleObjectProperty<>(Optional.empty());
    private final ObjectProperty<Optional<Answer>> answer = new SimpleObjectProperty<>(Optional.empty());
    private Asked asked = Asked.EVERYTHING;
    /** Of the question before, without the tray. */
    private Optional<BitSet> found = Optional.empty();

    private int question;
    private int entering;
    /** Whose layer was open last. */
    private String lastPhone = "";

    RoomModel(Desk desk, TrayModel tray) {
        this.desk = desk;
        this.tray = tray;
        tray.picked().addListener((o, was, is) -> {
            if (asked.picked()) {
                ask(asked);
            }
        });
    }

    ReadOnlyObjectProperty<Optional<Room>> room() {
        return room;
    }

    ReadOnlyObjectProperty<Optional<Answer>> answer() {
        return answer;
    }

    Asked asked() {
        return asked;
    }

    /** Whether what is shown is what was asked for last. */
    boolean isAnswered() {
        return answer.get().filter(now -> now.asked().equals(asked)).isPresent();
    }

    /**
     * Takes in a layer that was opened, or has grown since; what is asked of it stays then.
     *
     * @param then is run when it can be looked at
     */
    void enter(OpenPhone phone, Runnable then) {
        int mine = ++entering;
        desk.work().start(phone.phone().name(), () -> Room.of(phone), entered -> {
            if (mine == entering) { // else another one was opened meanwhile
                show(entered);
                then.run();
            }
        });
    }

    private void show(Room entered) {
        var identifier = entered.phone().phone().identifier();
        boolean grown = room.get().isPresent();
        // In another layer of the same phone one goes on with the same kinds.
        var kinds = identifier.equals(lastPhone) ? asked.groups() : Set.<KindGroup>of();
        var next = grown ? asked.of(asked.person().flatMap(entered::again)) : Asked.EVERYTHING.groups(kinds);
        lastPhone = identifier;
        answer.set(Optional.empty());
        room.set(Optional.of(entered));
        ask(next);
    }

    /** Nothing is open any more, or not yet. */
    void leave() {
        question++;
        entering++;
        room.set(Optional.empty());
        answer.set(Optional.empty());
    }

    /** Asks anew. What the time and the kinds change is answered at once, words and people off this thread; the newest question wins. */
    void ask(Asked newAsked) {
        asked = newAsked;
        var in = room.get();
        if (in.isEmpty()) {
            return;
        }
        int mine = ++question;
        var before = answer.get().filter(old -> old.asked().sameNumbers(newAsked));
        if (before.isPresent()) {
            show(in.get(), newAsked, found);
            return;
        }
        desk.work().start("Find", () -> numbers(in.get().phone().catalogue(), newAsked), numbers -> {
            if (mine == question && room.get().equals(in)) {
                show(in.get(), newAsked, numbers);
            }
        });
    }

    private void show(Room in, Asked of, Optional<BitSet> newFound) {
        found = newFound;
        var before = of.picked() ? Optional.of(picked(newFound)) : newFound;
        var numbers = of.only().isEmpty() ? before : Optional.of(narrowed(in, of.only(), before));
        var kinds = KindGroup.bits(of.groups());
        var seen = in.spine().see(new View(of.within(), kinds, numbers));
        if (!of.only().isEmpty() && !kinds.isEmpty()) {
            // What one kind is narrowed to is dropped when another one is chosen, so the others have all of theirs.
            seen = seen.withOthers(in.spine().see(new View(of.within(), kinds, before)), kinds);
        }
        answer.set(Optional.of(new Answer(of, seen, numbers)));
    }

    private static BitSet narrowed(Room in, Set<Trait> only, Optional<BitSet> of) {
        var numbers = in.traits().having(only);
        of.ifPresent(numbers::and);
        return numbers;
    }

    /** How many of what would be shown without being narrowed have each trait. */
    Map<Trait, Integer> traits() {
        if (room.get().isEmpty() || answer.get().isEmpty()) {
            return Map.of();
        }
        var in = room.get().get();
        var numbers = asked.picked() ? Optional.of(picked(found)) : found;
        var seen = in.spine().see(new View(asked.within(), KindGroup.bits(asked.groups()), numbers));
        return in.traits().counts(seen.places());
    }

    private BitSet picked(Optional<BitSet> of) {
        var numbers = (BitSet) tray.picked().get().clone();
        of.ifPresent(numbers::and);
        return numbers;
    }

    private static Optional<BitSet> numbers(Catalogue catalogue, Asked asked) throws IOException {
        if (asked.person().isEmpty()
                && asked.conversation().isEmpty()
                && asked.typed().isBlank()
                && !asked.attached()) {
            return Optional.empty();
        }
        var person =
                asked.person().map(who -> OptionalLong.of(who.person().id())).orElse(OptionalLong.empty());
        var filter = new Filter(
                Set.of(),
                person,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                asked.attached(),
                Optional.empty());
        var numbers = catalogue.matching(asked.typed(), filter);
        if (asked.conversation().isPresent()) {
            numbers.and(bits(
                    catalogue.within(asked.conversation().get().conversation().id())));
        }
        return Optional.of(numbers);
    }

    private static BitSet bits(long[] numbers) {
        var bits = new BitSet();
        Arrays.stream(numbers).forEach(number -> bits.set((int) number));
        return bits;
    }
}
