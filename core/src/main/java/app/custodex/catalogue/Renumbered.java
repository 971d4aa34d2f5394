package app.custodex.catalogue;

import app.custodex.base.Digests;
import app.custodex.catalogue.Comparison.Difference;
import app.custodex.exchange.ThingLines;
import app.custodex.model.MediaFile;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.Function;

/**
 * Finds again what stands under another number. When a phone numbers its rows anew, each seems to have become another one; they are
 * known by what they say, when, and with whom; what has no time, by everything that is told of it. Files are known by their paths alone.
 */
final class Renumbered {
    /** What a thing says, shortened. */
    private record Content(ThingKind kind, String digest) {}

    /** Of a thing that can't be read. */
    private static final Content NOTHING = new Content(ThingKind.FILE, "");

    private final List<Difference> differences;
    private final Map<Long, Content> before;
    private final Map<Long, Content> after;
    /** How many of what went are among what came, by what they say. */
    private final Map<Content, Integer> inBoth = new HashMap<>();

    Renumbered(Catalogue older, Catalogue newer, List<Difference> differences) throws IOException {
        this.differences = List.copyOf(differences);
        before = contents(older, Difference::before);
        after = contents(newer, Difference::after);
        var came = new HashMap<Content, Integer>();
        after.values().forEach(content -> came.merge(content, 1, Integer::sum));
        var went = new HashMap<Content, Integer>();
        before.values().forEach(content -> went.merge(content, 1, Integer::sum));
        went.forEach((content, count) -> {
            int both = Math.min(count, came.getOrDefault(content, 0));
            if (both > 0) {
                inBoth.put(content, both);
            }
        });
    }

    private Map<Long, Content> contents(Catalogue catalogue, Function<Difference, OptionalLong> side)
            throws IOException {
        var contents = new HashMap<Long, Content>();
        var numbers = differences.stream()
                .map(side)
                .filter(OptionalLong::isPresent)
                .mapToLong(OptionalLong::getAsLong)
                .toArray();
        catalogue.forEach(numbers, entry -> contents.put(entry.number(), content(entry.thing())));
        return contents;
    }

    private static Content content(Thing thing) {
        return new Content(thing.kind(), Digests.of(told(thing).getBytes(StandardCharsets.UTF_8)));
    }

    /** Of a dated thing its state may have changed meanwhile; of another one there is nothing else to know it by. */
    private static String told(Thing thing) {
        return thing.moment().isPresent()
                ? said(thing)
                : ThingLines.tree(thing).without("id").toString();
    }

    private static String said(Thing thing) {
        var says = new StringBuilder();
        thing.moment().ifPresent(moment -> says.append(moment));
        thing.outgoing().ifPresent(says::append);
        for (Party party : thing.people()) {
            says.append('\u0000').append(party.address()).append('\u0000').append(party.name());
        }
        thing.texts(text -> says.append('\u0000').append(text));
        thing.attachments().forEach(attachment -> says.append('\u0000').append(attachment.title()));
        return says.toString();
    }

    /** The differences without what was found again. */
    List<Difference> rest() {
        var rest = new ArrayList<Difference>();
        var left = new HashMap<>(inBoth);
        var right = new HashMap<>(inBoth);
        // What says the same under the same number changed in something else, and is no other's.
        for (var difference : differences) {
            if (isSame(difference)) {
                difference.before().ifPresent(number -> use(left, of(before, number)));
                difference.after().ifPresent(number -> use(right, of(after, number)));
            }
        }
        for (var difference : differences) {
            if (isSame(difference)) {
                rest.add(difference);
                continue;
            }
            var was = kept(difference.before(), before, left);
            var is = kept(difference.after(), after, right);
            if (was.isPresent() || is.isPresent()) {
                rest.add(new Difference(difference.kind(), was, is));
            }
        }
        return rest;
    }

    private static Content of(Map<Long, Content> contents, long number) {
        return contents.getOrDefault(number, NOTHING);
    }

    private boolean isSame(Difference difference) {
        return MediaFile.KINDS.contains(difference.kind()) || saysTheSame(difference);
    }

    private boolean saysTheSame(Difference difference) {
        return difference.before().isPresent()
                && difference.after().isPresent()
                && of(before, difference.before().getAsLong())
                        .equals(of(after, difference.after().getAsLong()));
    }

    /** The number, unless what stands there was found again on the other side. */
    private static OptionalLong kept(OptionalLong number, Map<Long, Content> contents, Map<Content, Integer> again) {
        return number.isPresent() && use(again, of(contents, number.getAsLong())) ? OptionalLong.empty() : number;
    }

    /** @return whether there was one left */
    private static boolean use(Map<Content, Integer> again, Content content) {
        var left = again.getOrDefault(content, 0);
        if (left > 0) {
            again.put(content, left - 1);
        }
        return left > 0;
    }
}
