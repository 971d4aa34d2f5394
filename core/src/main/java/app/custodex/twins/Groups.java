package app.custodex.twins;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Puts together what was said to belong together, one pair after the other. */
final class Groups {
    private final int[] leaders;

    Groups(int size) {
        leaders = IntStream.range(0, size).toArray();
    }

    private int leader(int of) {
        int at = of;
        while (leaders[at] != at) {
            leaders[at] = leaders[leaders[at]];
            at = leaders[at];
        }
        return at;
    }

    void join(int one, int other) {
        int a = leader(one);
        int b = leader(other);
        leaders[Math.max(a, b)] = Math.min(a, b);
    }

    /** Those of two or more, each in its order, in the order of their first. */
    List<List<Integer>> groups() {
        Map<Integer, List<Integer>> byLeader = new TreeMap<>();
        for (int i = 0; i < leaders.length; i++) {
            byLeader.computeIfAbsent(leader(i), first -> new ArrayList<>()).add(i);
        }
        return byLeader.values().stream().filter(group -> group.size() > 1).toList();
    }

    /** Everything in sets but the first of each. */
    static Set<Integer> others(List<TwinSet> sets) {
        return sets.stream().flatMap(set -> set.numbers().stream().skip(1)).collect(Collectors.toSet());
    }

    /** Puts together what has a key in common. */
    static <K> Map<K, List<Integer>> byKey(List<K> keys) {
        Map<K, List<Integer>> found = new LinkedHashMap<>();
        for (int i = 0; i < keys.size(); i++) {
            found.computeIfAbsent(keys.get(i), key -> new ArrayList<>()).add(i);
        }
        return found;
    }
}
