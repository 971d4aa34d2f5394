package app.custodex.extract.tables;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.model.Call;
import app.custodex.model.KindGroup;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.Voicemail;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** How many calls or voicemail messages there were with each person, and how long they took in all. */
final class Totals {
    static final String TITLE = "Totals";
    private static final Choice CHOICE = Choice.whether("totals", "With totals for each person", false);

    private final Batch batch;
    private final Map<String, Total> people = new HashMap<>();
    private final Total all = new Total("All", "");

    private static final class Total {
        private final String name;
        private final String number;
        private int count;
        private int unheard;
        private final Map<Call.Outcome, Integer> outcomes = new EnumMap<>(Call.Outcome.class);
        private Duration length = Duration.ZERO;

        Total(String name, String number) {
            this.name = name;
            this.number = number;
        }

        void add(Thing thing) {
            count++;
            switch (thing) {
                case Call call -> {
                    outcomes.merge(call.outcome(), 1, Integer::sum);
                    length = length.plus(call.length());
                }
                case Voicemail mail -> {
                    unheard += mail.heard() ? 0 : 1;
                    length = length.plus(mail.length());
                }
                default -> throw new IllegalArgumentException("no totals of " + thing.kind());
            }
        }
    }

    private Totals(Batch batch) {
        this.batch = batch;
    }

    /** What can be chosen for a group, if anything. */
    static List<Choice> choices(KindGroup group) {
        return hasAny(group) ? List.of(CHOICE) : List.of();
    }

    private static boolean hasAny(KindGroup group) {
        return group == KindGroup.CALLS || group == KindGroup.VOICEMAIL;
    }

    /** Empty when they are not wanted. */
    static Optional<Totals> of(Batch batch, Chosen chosen) {
        return hasAny(batch.group()) && chosen.is(CHOICE) ? Optional.of(new Totals(batch)) : Optional.empty();
    }

    /** Counts a thing for everybody in it. */
    void add(Thing thing) {
        all.add(thing);
        for (var party : thing.people().isEmpty() ? List.of(Party.named("")) : thing.people()) {
            people.computeIfAbsent(
                            party.key(),
                            key -> new Total(batch.material().names().of(party, thing), party.reach()))
                    .add(thing);
        }
    }

    List<String> headings() {
        var headings =
                new ArrayList<>(List.of("With", "Number", batch.group() == KindGroup.CALLS ? "Calls" : "Messages"));
        if (batch.group() == KindGroup.CALLS) {
            for (var outcome : Call.Outcome.values()) {
                headings.add(Columns.singular(Columns.word(outcome)));
            }
        } else {
            headings.add("Not heard");
        }
        headings.add("Length in all");
        return headings;
    }

    /** A row for each person, those with most first, and one for all; a call with several people counts once there. */
    List<List<Cell>> rows() {
        var rows = new ArrayList<List<Cell>>();
        people.values().stream()
                .sorted(Comparator.comparingInt((Total total) -> -total.count)
                        .thenComparing(total -> total.name)
                        .thenComparing(total -> total.number))
                .forEach(total -> rows.add(row(total)));
        rows.add(row(all));
        return rows;
    }

    private List<Cell> row(Total total) {
        var row = new ArrayList<Cell>(
                List.of(new Cell.Text(total.name), new Cell.Text(total.number), new Cell.Number(total.count)));
        if (batch.group() == KindGroup.CALLS) {
            for (var outcome : Call.Outcome.values()) {
                row.add(new Cell.Number(total.outcomes.getOrDefault(outcome, 0)));
            }
        } else {
            row.add(new Cell.Number(total.unheard));
        }
        row.add(new Cell.Length(total.length));
        return row;
    }
}
