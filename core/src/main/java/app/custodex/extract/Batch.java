package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.model.KindGroup;
import app.custodex.model.Thing;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Function;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Things of one group that are written together, in their order, read while they are written. */
public final class Batch {
    private static final Logger LOG = LoggerFactory.getLogger(Batch.class);
    /** Things read at once. */
    private static final int PAGE = 256;

    private final KindGroup group;
    private final String title;
    private final Material material;
    private final Source source;
    private final Report report;
    private final CancelToken cancel;
    private final Optional<Function<Thing, List<String>>> saying;

    /** Where the things come from. */
    private sealed interface Source {
        int count();

        /** In the catalogue; none of what did not come from there. */
        long[] numbers();

        List<Thing> read(int from, int until) throws IOException;

        /** Those at these places. */
        Source some(List<Integer> places);
    }

    private record Kept(Material material, long[] numbers) implements Source {
        @Override
        public int count() {
            return numbers.length;
        }

        @Override
        public List<Thing> read(int from, int until) throws IOException {
            return material.catalogue().read(Arrays.copyOfRange(numbers, from, until)).stream()
                    .map(entry -> entry.thing())
                    .toList();
        }

        @Override
        public Source some(List<Integer> places) {
            return new Kept(
                    material, places.stream().mapToLong(place -> numbers[place]).toArray());
        }
    }

    private record Given(List<Thing> things) implements Source {
        @Override
        public int count() {
            return things.size();
        }

        @Override
        public long[] numbers() {
            return new long[0];
        }

        @Override
        public List<Thing> read(int from, int until) {
            return things.subList(from, until);
        }

        @Override
        public Source some(List<Integer> places) {
            return new Given(places.stream().map(things::get).toList());
        }
    }

    private Batch(
            KindGroup group,
            String title,
            Material material,
            Source source,
            Report report,
            CancelToken cancel,
            Optional<Function<Thing, List<String>>> saying) {
        this.group = group;
        this.title = title;
        this.material = material;
        this.source = source;
        this.report = report;
        this.cancel = cancel;
        this.saying = saying;
    }

    /**
     * Things of the catalogue.
     *
     * @param title of what is written, and so of its file
     * @param numbers of the things, in the order in which they are written
     */
    public static Batch of(
            KindGroup group, String title, Material material, long[] numbers, Report report, CancelToken cancel) {
        return new Batch(group, title, material, new Kept(material, numbers), report, cancel, Optional.empty());
    }

    /** Things that are there already, such as contacts that were merged. */
    public static Batch of(
            KindGroup group,
            String title,
            Material material,
            List<? extends Thing> things,
            Report report,
            CancelToken cancel) {
        return new Batch(group, title, material, new Given(List.copyOf(things)), report, cancel, Optional.empty());
    }

    /** Only those that are meant; the others are not counted. */
    public Batch only(Predicate<Thing> meant) {
        var chosen = new ArrayList<Thing>();
        look().forEach(thing -> {
            if (meant.test(thing)) {
                chosen.add(thing);
            }
        });
        return of(group, title, material, chosen, report, cancel);
    }

    /** Some of it under another title. */
    public Batch part(String partTitle, long[] numbers) {
        var part = of(group, partTitle, material, numbers, report.part(), cancel);
        return saying.map(part::saying).orElse(part);
    }

    /**
     * To which part a thing belongs.
     *
     * @param key equal for things of the same part
     * @param title of the part
     */
    public record Share(String key, String title) {}

    /** In parts, in the order in which the first thing of each comes. */
    public List<Batch> divided(Function<Thing, Share> share) {
        var shares = new LinkedHashMap<String, Divided>();
        int at = 0;
        for (var thing : look()) {
            var of = share.apply(thing);
            shares.computeIfAbsent(of.key(), key -> new Divided(of.title(), new ArrayList<>()))
                    .places()
                    .add(at++);
        }
        return shares.values().stream()
                .map(part -> new Batch(
                        group, part.title(), material, source.some(part.places()), report.part(), cancel, saying))
                .toList();
    }

    private record Divided(String title, List<Integer> places) {}

    /**
     * The same, of whose things nothing else may be told than this.
     *
     * @param instead gives the words by which a thing may be found where it was written
     */
    public Batch saying(Function<Thing, List<String>> instead) {
        return new Batch(group, title, material, source, report, cancel, Optional.of(instead));
    }

    /** The words by which a thing is found where it was written: what it is called, who is in it, what stands in it. */
    public List<String> said(Thing thing) {
        var said = new LinkedHashSet<String>();
        said.add(thing.title());
        thing.people().forEach(party -> said.add(material.names().of(party, thing)));
        thing.texts(said::add);
        return said.stream().filter(text -> !text.isBlank()).toList();
    }

    public KindGroup group() {
        return group;
    }

    public String title() {
        return title;
    }

    public Material material() {
        return material;
    }

    public int count() {
        return source.count();
    }

    /** Of the things in the catalogue, in their order; empty when they did not come from there. */
    public long[] numbers() {
        return source.numbers().clone();
    }

    /** Tells that something of a thing is missing in what is written. */
    public void problem(Problem problem) {
        report.problem(problem);
    }

    /** Tells that an item can't be read, and what that means, such as "so it is left out". */
    public void unreadable(String item, String means) {
        problem(Problem.loss(item, "It can't be read, " + means, "Check the layer; look into an older one"));
    }

    /**
     * Writes an item as it is, and tells when it is not what the layer saved.
     *
     * @param name of the file
     * @throws UnreadableException when it can't be read
     */
    public Path original(OutFolder into, String name, String item) throws IOException {
        try (var content = material.open(item)) {
            var written = into.original(name, content, material.modified(item));
            if (!into.isPreview()) {
                material.digest(item).ifPresent(digest -> report.copied(item, digest, written));
            }
            return written.file();
        }
    }

    /** Tells when an item is not what the layer saved. */
    public void compare(String item, String digest) throws IOException {
        if (material.digest(item).filter(saved -> !saved.equals(digest)).isPresent()) {
            problem(Report.differs(item));
        }
    }

    /** Counts something that the format has no place for, such as "photos". */
    public void leftOut(String what) {
        leftOut(what, 1);
    }

    /** Counts several of them, or none. */
    public void leftOut(String what, int count) {
        report.leftOut(what, count);
    }

    /** The same, for a look ahead: nothing that becomes known is told. */
    public Batch aside() {
        return new Batch(group, title, material, source, new Report(done -> {}), cancel, saying);
    }

    /** What was left out of it up to now, a line each with its count. */
    public List<String> leftOutSoFar() {
        return report.leftOut();
    }

    /** All things, one after the other, without counting them: a look ahead. */
    public Iterable<Thing> look() {
        return () -> new Things<>(thing -> thing, false);
    }

    /**
     * All things, one after the other, in another form. What can't be given that form is told and left out; nothing that a phone holds ends
     * the whole.
     */
    public <T> Iterable<T> each(Function<Thing, T> form) {
        return () -> new Things<>(form, true);
    }

    private final class Things<T> implements Iterator<T> {
        private final Function<Thing, T> form;
        private final boolean counts;
        private List<Thing> page = List.of();
        private int inPage;
        private int read;
        private Optional<T> next = Optional.empty();

        Things(Function<Thing, T> form, boolean counts) {
            this.form = form;
            this.counts = counts;
        }

        @Override
        public boolean hasNext() {
            while (next.isEmpty()) {
                var thing = nextThing();
                if (thing.isEmpty()) {
                    return false;
                }
                next = formed(thing.get());
            }
            return true;
        }

        private Optional<Thing> nextThing() {
            try {
                while (inPage == page.size()) {
                    if (read == source.count()) {
                        return Optional.empty();
                    }
                    int until = Math.min(read + PAGE, source.count());
                    page = source.read(read, until);
                    read = until;
                    inPage = 0;
                }
                return Optional.of(page.get(inPage++));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        private Optional<T> formed(Thing thing) {
            cancel.check();
            try {
                var formed = Optional.of(form.apply(thing));
                if (counts) {
                    report.written(thing, saying.orElse(Batch.this::said));
                }
                return formed;
            } catch (CancellationException | UncheckedIOException e) {
                throw e;
            } catch (RuntimeException e) { // a library met what its authors did not expect
                LOG.warn(
                        "a thing can't be given its form: {}",
                        e.getClass().getName()); // its words may be the customer's
                report.problem(Problem.loss(
                        thing.title().isBlank() ? thing.id().text() : thing.title(),
                        "It can't be written in this format, and is left out",
                        "Choose another format for it"));
                return Optional.empty();
            }
        }

        @Override
        public T next() {
            if (!hasNext()) {
                throw new NoSuchElementException();
            }
            var given = next.orElseThrow();
            next = Optional.empty();
            return given;
        }
    }
}
