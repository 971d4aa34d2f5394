package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Filter;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.IntConsumer;

/** Writes things of a phone into open files, a group at a time, each in its own format. */
public final class Extraction {
    /**
     * One group and how it is to be written.
     *
     * @param numbers of its things in the catalogue
     * @param contacts to be written in the place of those, when some are merged
     */
    public record Order(
            KindGroup group, long[] numbers, Optional<List<Contact>> contacts, Format format, Chosen chosen) {
        public static Order of(KindGroup group, long[] numbers, Format format, Chosen chosen) {
            return new Order(group, numbers, Optional.empty(), format, chosen);
        }

        /** The same with these contacts. */
        public Order with(List<Contact> these) {
            return new Order(group, numbers, Optional.of(these), format, chosen);
        }

        /** How many things it is about. */
        public int count() {
            return contacts.map(List::size).orElse(numbers.length);
        }
    }

    private final Material material;

    public Extraction(Material material) {
        this.material = material;
    }

    /**
     * Sorts things into the groups in which they are written: whole conversations are their messages. Each group is in the order of time.
     *
     * @param picked numbers in the catalogue
     */
    public static Map<KindGroup, long[]> groups(Catalogue catalogue, BitSet picked) throws IOException {
        var wanted = (BitSet) picked.clone();
        var conversations = catalogue.matching("", Filter.EVERYTHING.of(ThingKind.CONVERSATION));
        conversations.and(picked);
        wanted.andNot(conversations);
        for (var entry : catalogue.read(conversations.stream().asLongStream().toArray())) {
            Arrays.stream(catalogue.within(entry.thing().id())).forEach(number -> wanted.set((int) number));
        }
        var groups = new EnumMap<KindGroup, long[]>(KindGroup.class);
        for (var group : KindGroup.values()) {
            var filter = Filter.EVERYTHING.of(group.kinds());
            var numbers = catalogue.matching("", filter);
            numbers.and(wanted);
            if (!numbers.isEmpty()) {
                groups.put(
                        group,
                        Arrays.stream(catalogue.find(filter, Catalogue.Order.OLDEST_FIRST))
                                .filter(number -> numbers.get((int) number))
                                .toArray());
            }
        }
        return groups;
    }

    /**
     * Writes them. What the formats had no place for is told in a file beside them too.
     *
     * @param opening opens what it is written to
     * @param onDisk is told in the end which files lie on the disk now, however it ended
     * @param where in words, for what is told
     * @param progress is told how many things are written
     * @throws ProblemException when it can't be written
     */
    public ExtractResult write(
            List<Order> orders,
            Target.Opening opening,
            Consumer<List<WrittenFile>> onDisk,
            Path where,
            IntConsumer progress,
            CancelToken cancel)
            throws IOException {
        try (var into = opening.open()) {
            try {
                return write(orders, into, progress, cancel);
            } finally {
                onDisk.accept(into.onDisk());
            }
        } catch (ProblemException e) {
            throw e;
        } catch (IOException e) {
            throw unwritable(where, e);
        } catch (UncheckedIOException e) {
            throw unwritable(where, Objects.requireNonNull(e.getCause()));
        }
    }

    private ExtractResult write(List<Order> orders, Target into, IntConsumer progress, CancelToken cancel)
            throws IOException {
        var report = new Report(progress, into.files()::thing);
        var out = into.folder();
        for (var order : orders) {
            if (order.count() == 0) { // an empty file would look like a success
                report.problem(Problem.note(order.group().label(), "There is nothing of it to write", ""));
            } else {
                order.format().write(batch(order, report.part(), cancel), order.chosen(), out);
            }
        }
        var leftOut = report.leftOut();
        if (!leftOut.isEmpty()) {
            out.text("Left out of " + material.phone(), ".txt", text -> {
                for (var line : leftOut) {
                    text.write(Clean.line(line) + System.lineSeparator());
                }
            });
        }
        into.finish(material, orders, leftOut);
        report.compareCopies();
        return new ExtractResult(
                into.onDisk().stream().map(WrittenFile::file).toList(), report.count(), leftOut, report.problems());
    }

    /**
     * The beginning of a file that would be written.
     *
     * @param path below the folder that is chosen
     * @param beginning some of its bytes; none of an original, which is as it is
     */
    public record Preview(String path, byte[] beginning) {}

    /**
     * What would be written of the first things; nothing of it comes on the disk.
     *
     * @param most things
     */
    public List<Preview> preview(Order order, int most, CancelToken cancel) throws IOException {
        var files = new ArrayList<Preview>();
        var few = new Order(
                order.group(),
                Arrays.copyOf(order.numbers(), Math.min(most, order.numbers().length)),
                order.contacts().map(all -> all.subList(0, Math.min(most, all.size()))),
                order.format(),
                order.chosen());
        few.format()
                .write(batch(few, new Report(done -> {}), cancel), few.chosen(), new PreviewFolder(Path.of(""), files));
        return files;
    }

    private Batch batch(Order order, Report report, CancelToken cancel) {
        var title = order.group().label() + " of " + material.phone();
        return order.contacts()
                .map(contacts -> Batch.of(order.group(), title, material, contacts, report, cancel))
                .orElseGet(() -> Batch.of(order.group(), title, material, order.numbers(), report, cancel));
    }

    private static ProblemException unwritable(Path folder, IOException cause) {
        return cause instanceof ProblemException known
                ? known
                : new ProblemException(
                        Problem.failure(
                                folder.toString(),
                                "The files can't be written to this folder",
                                "Choose another folder, or free some space; files that are complete stay there"),
                        cause);
    }
}
