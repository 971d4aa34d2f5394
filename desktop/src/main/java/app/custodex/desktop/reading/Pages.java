package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue;
import app.custodex.desktop.ui.Work;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The things of a long list, read page by page behind the window as they come into sight. Interface thread only. */
final class Pages {
    private static final int PAGE = 128;
    private static final int KEPT = 40;

    private final Catalogue catalogue;
    private final Work work;
    private final Runnable arrived;
    private final Set<Integer> underWay = new HashSet<>();
    private final Map<Integer, Map<Integer, Catalogue.Entry>> pages = new LinkedHashMap<>(KEPT, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Integer, Map<Integer, Catalogue.Entry>> eldest) {
            return size() > KEPT;
        }
    };

    /** @param arrived is told when more can be shown */
    Pages(Catalogue catalogue, Work work, Runnable arrived) {
        this.catalogue = catalogue;
        this.work = work;
        this.arrived = arrived;
    }

    /**
     * The thing in a row.
     *
     * @param numbers of all rows
     * @return empty until it is read
     */
    Optional<Catalogue.Entry> get(int row, int[] numbers) {
        int page = row / PAGE;
        var there = pages.get(page);
        if (there == null) {
            read(page, numbers);
            return Optional.empty();
        }
        return Optional.ofNullable(there.get(numbers[row]));
    }

    private void read(int page, int[] numbers) {
        if (!underWay.add(page)) {
            return;
        }
        long[] wanted = Arrays.stream(numbers, page * PAGE, Math.min(numbers.length, (page + 1) * PAGE))
                .asLongStream()
                .toArray();
        work.start(
                "List",
                () -> {
                    var entries = new LinkedHashMap<Integer, Catalogue.Entry>();
                    catalogue.read(wanted).forEach(entry -> entries.put((int) entry.number(), entry));
                    return entries;
                },
                entries -> {
                    pages.put(page, entries);
                    arrived.run();
                },
                () -> underWay.remove(page));
    }
}
