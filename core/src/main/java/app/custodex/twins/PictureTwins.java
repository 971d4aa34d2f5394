package app.custodex.twins;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import app.custodex.model.ThingKind;
import app.custodex.twins.FileTwins.Numbered;
import app.custodex.twins.TwinSet.Likeness;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;

/** Pictures that look alike: the same one smaller, packed anew, or taken a moment later. */
public final class PictureTwins {
    /** Of 64 parts. Copies that are smaller, lighter or packed anew differ in fewer, other pictures in about half. */
    private static final int MOST_DIFFERENT = 8;
    /** How far the shapes may be apart: one by cutting off a bit, but not by turning it. */
    private static final double SHAPE = 0.06;
    /** Pixels along the longer side; the hash looks at 32 times 32. */
    private static final int SIDE = 160;

    private static final int AT_ONCE = 2;

    /** Opens an item to be decoded. */
    public interface Opener {
        MediaSource open(String item) throws IOException;
    }

    private record Look(int number, long hash, int width, int height) {
        double shape() {
            return (double) width / height;
        }

        long pixels() {
            return (long) width * height;
        }
    }

    private PictureTwins() {}

    /**
     * @param same which files are the same anyway: of each of these sets one is enough
     * @param listener is told how many were looked at, and which can't be decoded
     */
    static List<TwinSet> of(
            List<Numbered> files, List<TwinSet> same, Opener opener, Twins.Listener listener, CancelToken cancel)
            throws IOException {
        var others = Groups.others(same);
        var pictures = files.stream()
                .filter(each -> each.kind() == ThingKind.PICTURE && !others.contains(each.number()))
                .toList();
        return alike(look(pictures, opener, listener, cancel), cancel);
    }

    private static List<Look> look(List<Numbered> pictures, Opener opener, Twins.Listener listener, CancelToken cancel)
            throws IOException {
        var done = new AtomicInteger();
        var tasks = pictures.stream()
                .<Callable<Optional<Look>>>map(each -> () -> {
                    cancel.check();
                    var look = look(each, opener, listener);
                    listener.looked(done.incrementAndGet());
                    return look;
                })
                .toList();
        var looks = new ArrayList<Look>();
        try (var pool = Executors.newFixedThreadPool(AT_ONCE, Thread.ofVirtual().factory())) {
            for (var task : pool.invokeAll(tasks)) {
                task.get().ifPresent(looks::add);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        } catch (ExecutionException e) {
            cancel.check();
            throw new IOException(e);
        }
        return looks;
    }

    /** The small one that the camera put into the file will do; empty for what can't be decoded, which is told. */
    private static Optional<Look> look(Numbered each, Opener opener, Twins.Listener listener) {
        try (var source = opener.open(each.item())) {
            Picture picture = MediaWorkers.shared().picture(source, SIDE, true);
            return Optional.of(
                    new Look(each.number(), PictureHash.of(picture), picture.fullWidth(), picture.fullHeight()));
        } catch (IOException e) {
            listener.problem(Problem.loss(
                    each.item(),
                    "It can't be shown, so it was not compared with what looks like it",
                    "Take it out as a file; look into an older layer"));
            return Optional.empty();
        }
    }

    /** Each goes to the first that it looks like: so all of a set look like one, and not each like the next. */
    private static List<TwinSet> alike(List<Look> looks, CancelToken cancel) {
        var sets = new ArrayList<TwinSet>();
        var taken = new BitSet();
        for (int i = 0; i < looks.size(); i++) {
            cancel.check();
            if (taken.get(i)) {
                continue;
            }
            var first = looks.get(i);
            var set = new ArrayList<>(List.of(first));
            int farthest = 0;
            for (int j = i + 1; j < looks.size(); j++) {
                var other = looks.get(j);
                int different = PictureHash.different(first.hash(), other.hash());
                if (!taken.get(j)
                        && different <= MOST_DIFFERENT
                        && Math.abs(first.shape() / other.shape() - 1) <= SHAPE) {
                    taken.set(j);
                    set.add(other);
                    farthest = Math.max(farthest, different);
                }
            }
            if (set.size() > 1) {
                sets.add(new TwinSet(
                        Likeness.LOOK_ALIKE,
                        "they look alike: at most " + farthest + " of " + PictureHash.PARTS + " parts differ",
                        set.stream()
                                .sorted(Comparator.comparing(Look::pixels).reversed())
                                .map(Look::number)
                                .toList()));
            }
        }
        return sets;
    }
}
