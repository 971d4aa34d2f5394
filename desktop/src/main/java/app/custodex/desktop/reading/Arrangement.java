package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Spine;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * What a list shows, in its order.
 *
 * @param places of the things in the order of time
 * @param numbers of the things in the catalogue
 * @param sections of what stands together; empty where nothing does
 * @param messages that each conversation has, where that is known; else 0
 * @param pages reads them as they come into sight
 */
record Arrangement(
        RoomModel.Room room,
        ListOrder order,
        int[] places,
        int[] numbers,
        List<Section> sections,
        int[] messages,
        Pages pages) {
    /** So many a day deserve a heading of their own. */
    private static final int FULL_DAY = 3;

    Spine spine() {
        return room.spine();
    }

    int size() {
        return places.length;
    }

    /** The thing in a row; empty until it is read. */
    Optional<Entry> entry(int row) {
        return row >= 0 && row < numbers.length ? pages.get(row, numbers) : Optional.empty();
    }

    /** The row of a thing. */
    Optional<Integer> rowOf(long number) {
        for (int row = 0; row < numbers.length; row++) {
            if (numbers[row] == number) {
                return Optional.of(row);
            }
        }
        return Optional.empty();
    }

    /** The numbers of rows. */
    BitSet numbersOf(BitSet rows) {
        var found = new BitSet();
        rows.stream().forEach(row -> found.set(numbers[row]));
        return found;
    }

    /** The day of a row in the phone's calendar; empty for what has no time. */
    Optional<LocalDate> day(int row) {
        return spine().day(places[row]).map(LocalDate::ofEpochDay);
    }

    /** Whether there is so little of most days that a month is a better heading than a day. */
    boolean byMonth() {
        long days = Arrays.stream(places)
                .map(place -> spine().day(place).orElse(Integer.MIN_VALUE))
                .distinct()
                .count();
        return size() < FULL_DAY * days;
    }

    /**
     * The same without some things.
     *
     * @param left the numbers of those that are left out
     * @param newPages for the rows that remain
     */
    Arrangement without(BitSet left, Pages newPages) {
        var kept = IntStream.range(0, size())
                .filter(row -> !left.get(numbers[row]))
                .toArray();
        var newSections = new ArrayList<Section>();
        int at = 0;
        for (int i = 0; i < sections.size(); i++) {
            var section = sections.get(i);
            int end = i + 1 < sections.size() ? sections.get(i + 1).first() : size();
            int count = (int) IntStream.range(section.first(), end)
                    .filter(row -> !left.get(numbers[row]))
                    .count();
            if (count > 0) {
                newSections.add(new Section(at, section.name(), count, section.length()));
            }
            at += count;
        }
        return new Arrangement(
                room, order, pick(places, kept), pick(numbers, kept), newSections, pick(messages, kept), newPages);
    }

    private static int[] pick(int[] of, int[] rows) {
        return Arrays.stream(rows).map(row -> of[row]).toArray();
    }

    boolean byTime() {
        return order.sorting().isEmpty();
    }

    /** Which rows stand together: by their day or month in the order of time, by the sections otherwise. */
    int[] groups() {
        var groups = new int[size()];
        if (byTime()) {
            boolean months = byMonth();
            Arrays.setAll(
                    groups,
                    row -> day(row).map(
                                    day -> months ? day.getYear() * 12 + day.getMonthValue() : (int) day.toEpochDay())
                            .orElse(Integer.MIN_VALUE));
            return groups;
        }
        for (int i = 0; i < sections.size(); i++) {
            int end = i + 1 < sections.size() ? sections.get(i + 1).first() : size();
            Arrays.fill(groups, sections.get(i).first(), end, i);
        }
        return groups;
    }
}
