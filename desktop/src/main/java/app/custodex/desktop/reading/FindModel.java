package app.custodex.desktop.reading;

import app.custodex.app.LiveSearch;
import app.custodex.app.LiveSearch.Answer;
import app.custodex.app.LiveSearch.Place;
import app.custodex.app.LiveSearch.Question;
import app.custodex.base.CancelToken;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingKind;
import app.custodex.strongroom.StoredPhone;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import javafx.animation.PauseTransition;
import javafx.application.Platform;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.util.Duration;

/** What is looked for in the whole strongroom, and what was found. Interface thread only. */
final class FindModel {
    /** So long nothing is asked while somebody types on. */
    private static final Duration PAUSE = Duration.millis(120);

    /** How far is looked. */
    enum Scope {
        EVERYTHING("Every phone"),
        PHONE("This phone"),
        LAYER("This layer");

        private final String label;

        Scope(String label) {
            this.label = label;
        }

        String label() {
            return label;
        }
    }

    /**
     * What is asked for.
     *
     * @param with only what somebody of this name or number is in; blank for whoever is in it
     * @param in only this layer, of those that were asked
     */
    record Wanted(
            String typed,
            String with,
            Scope scope,
            Set<KindGroup> groups,
            boolean attached,
            Optional<LocalDate> from,
            Optional<LocalDate> until,
            Optional<Place> in) {
        static final Wanted NOTHING = new Wanted(
                "", "", Scope.EVERYTHING, Set.of(), false, Optional.empty(), Optional.empty(), Optional.empty());

        Wanted typed(String newTyped) {
            return new Wanted(newTyped, with, scope, groups, attached, from, until, in);
        }

        Wanted with(String newWith) {
            return new Wanted(typed, newWith.strip(), scope, groups, attached, from, until, in);
        }

        /** Whether there is anything to look for. */
        boolean isNothing() {
            return typed.isBlank() && with.isBlank();
        }

        Wanted scope(Scope newScope) {
            return new Wanted(typed, with, newScope, groups, attached, from, until, Optional.empty());
        }

        Wanted groups(Set<KindGroup> newGroups) {
            return new Wanted(typed, with, scope, Set.copyOf(newGroups), attached, from, until, in);
        }

        Wanted attached(boolean newAttached) {
            return new Wanted(typed, with, scope, groups, newAttached, from, until, in);
        }

        Wanted days(Optional<LocalDate> newFrom, Optional<LocalDate> newUntil) {
            return new Wanted(typed, with, scope, groups, attached, newFrom, newUntil, in);
        }

        Wanted in(Optional<Place> newIn) {
            return new Wanted(typed, with, scope, groups, attached, from, until, newIn);
        }

        private Question question() {
            var kinds = EnumSet.noneOf(ThingKind.class);
            groups.forEach(group -> kinds.addAll(group.kinds()));
            var filter = new Filter(
                    Set.of(), OptionalLong.empty(), Optional.empty(), from, until, attached, Optional.empty());
            return new Question(typed, with, kinds, filter);
        }
    }

    private final Desk desk;
    private final ObjectProperty<Wanted> wanted = new SimpleObjectProperty<>(Wanted.NOTHING);
    private final ObjectProperty<Optional<Answer>> answer = new SimpleObjectProperty<>(Optional.empty());
    private final PauseTransition pause = new PauseTransition(PAUSE);
    private Optional<LiveSearch> search = Optional.empty();
    private CancelToken asking = new CancelToken();

    FindModel(Desk desk) {
        this.desk = desk;
        pause.setOnFinished(event -> ask());
        // What may be read, and what is there, may have changed.
        desk.holdings().addListener((o, was, is) -> {
            if (search.isPresent()) {
                leave();
                want(wanted.get());
            }
        });
    }

    ReadOnlyObjectProperty<Wanted> wanted() {
        return wanted;
    }

    ReadOnlyObjectProperty<Optional<Answer>> answer() {
        return answer;
    }

    /** Asks anew as soon as nobody types on; the newest question wins. */
    void want(Wanted newWanted) {
        wanted.set(newWanted);
        asking.cancel();
        pause.playFromStart();
    }

    /** The phone at hand: the one that is read, or else the one in the bay. */
    Optional<String> phoneAtHand() {
        return desk.reading()
                .get()
                .map(Desk.Reading::phone)
                .or(() -> desk.present().get().flatMap(BayModel::phone))
                .map(phone -> phone.identifier());
    }

    /** The layer that is read; empty when none is. */
    Optional<Place> layerAtHand() {
        return desk.reading()
                .get()
                .filter(reading -> reading.layer() > 0)
                .map(reading -> new Place(reading.phone().identifier(), reading.layer()));
    }

    private void ask() {
        var asked = wanted.get();
        if (asked.isNothing()) {
            answer.set(Optional.empty());
            return;
        }
        var token = new CancelToken();
        asking = token;
        var in = search.orElseGet(() -> desk.custodex().liveSearch(desk.words().locale()));
        search = Optional.of(in);
        var only = asked.in().or(() -> asked.scope() == Scope.LAYER ? layerAtHand() : Optional.empty());
        var phone =
                only.map(Place::phone).or(() -> asked.scope() == Scope.EVERYTHING ? Optional.empty() : phoneAtHand());
        List<StoredPhone> phones = desk.holdings().get().phones().stream()
                .filter(stored -> phone.filter(
                                id -> !id.equals(stored.identity().identifier()))
                        .isEmpty())
                .toList();
        desk.work()
                .start(
                        "Find",
                        () -> {
                            in.find(
                                    asked.question(),
                                    phones,
                                    only.map(Place::layer),
                                    found -> {
                                        found.layers()
                                                .forEach(layer -> layer.open().names()); // loaded here
                                        Platform.runLater(() -> {
                                            if (token == asking && !token.isCancelled()) {
                                                answer.set(Optional.of(found));
                                            }
                                        });
                                    },
                                    token);
                            return asked;
                        },
                        done -> {});
    }

    /** Lets go of every layer. */
    void leave() {
        pause.stop();
        asking.cancel();
        answer.set(Optional.empty());
        search.ifPresent(open -> desk.work()
                .start(
                        "Find",
                        () -> {
                            open.close();
                            return open;
                        },
                        closed -> {}));
        search = Optional.empty();
    }
}
