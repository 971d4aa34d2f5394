package app.custodex.catalogue;

import app.custodex.catalogue.Trait.Aspect;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * The traits of all things of a layer. Few sets of traits occur, so each thing names its set by a number in the {@link Spine}, and a
 * question asks the sets instead of the things.
 */
public final class Traits {
    private static final String SIGN = "\t";

    private final Spine spine;
    /** By their numbers. */
    private final List<Set<Trait>> sets;

    private Traits(Spine spine, List<Set<Trait>> sets) {
        this.spine = spine;
        this.sets = sets;
    }

    static Traits load(Connection db, Spine spine) throws SQLException {
        var sets = new ArrayList<Set<Trait>>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, traits FROM trait_set ORDER BY id")) {
            while (rows.next()) {
                while (sets.size() < rows.getInt(1)) {
                    sets.add(Set.of());
                }
                sets.add(read(rows.getString(2)));
            }
        }
        return new Traits(spine, List.copyOf(sets));
    }

    /** One a line. */
    static String write(Set<Trait> traits) {
        var lines = new StringBuilder();
        for (var trait : traits) {
            lines.append(lines.isEmpty() ? "" : "\n")
                    .append(trait.aspect().name())
                    .append(SIGN)
                    .append(trait.value());
        }
        return lines.toString();
    }

    private static Set<Trait> read(String lines) {
        var traits = new HashSet<Trait>();
        lines.lines().forEach(line -> {
            int sign = line.indexOf(SIGN);
            traits.add(new Trait(Aspect.valueOf(line.substring(0, sign)), line.substring(sign + 1)));
        });
        return Set.copyOf(traits);
    }

    /**
     * How many of some things have each trait.
     *
     * @param places of the things in the spine
     */
    public Map<Trait, Integer> counts(int[] places) {
        var counts = new int[sets.size()];
        for (int place : places) {
            counts[spine.traits(place)]++;
        }
        var traits = new TreeMap<Trait, Integer>();
        for (int set = 0; set < counts.length; set++) {
            int count = counts[set];
            if (count > 0) {
                sets.get(set).forEach(trait -> traits.merge(trait, count, Integer::sum));
            }
        }
        return traits;
    }

    /** Every trait of an aspect that occurs. */
    public Set<Trait> all(Aspect aspect) {
        return sets.stream()
                .flatMap(Set::stream)
                .filter(trait -> trait.aspect() == aspect)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /**
     * The numbers of the things that have what is wanted.
     *
     * @param wanted of each aspect, one of these
     */
    public BitSet having(Set<Trait> wanted) {
        var byAspect = wanted.stream().collect(Collectors.groupingBy(Trait::aspect, Collectors.toSet()));
        var passing = new BitSet();
        for (int set = 0; set < sets.size(); set++) {
            var traits = sets.get(set);
            if (byAspect.values().stream().allMatch(some -> some.stream().anyMatch(traits::contains))) {
                passing.set(set);
            }
        }
        var numbers = new BitSet();
        for (int place = 0; place < spine.size(); place++) {
            if (passing.get(spine.traits(place))) {
                numbers.set(spine.number(place));
            }
        }
        return numbers;
    }
}
