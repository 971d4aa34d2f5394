package app.custodex.desktop.media;

import app.custodex.desktop.ui.Work;
import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedSet;
import java.util.Set;
import javafx.scene.image.Image;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Small pictures for a list that scrolls. What was asked for last comes first; what is out of sight again is not decoded. A small one that
 * the camera left in the file shows at once, and a sharp one takes its place when all others have something. They are kept in memory only.
 * Interface thread only.
 */
public final class Thumbnails {
    private static final Logger LOG = LoggerFactory.getLogger(Thumbnails.class);
    /** Pixels along the longer side. */
    private static final int SIDE = 320;

    private static final int AT_ONCE = 2;
    private static final long KEPT = 96L << 20;

    /** Opens an item of the layer. */
    public interface Source {
        MediaSource open(String item) throws IOException;
    }

    private final Work work;
    private final Runnable arrived;
    private Optional<Source> source = Optional.empty();
    /** The newest question is the last. */
    private final SequencedSet<String> first = new LinkedHashSet<>();

    private final SequencedSet<String> sharper = new LinkedHashSet<>();
    private final Set<String> underWay = new LinkedHashSet<>();
    private final Set<String> unreadable = new LinkedHashSet<>();
    private final Set<String> damaged = new LinkedHashSet<>();
    private final Map<String, Image> kept = new LinkedHashMap<>(64, 0.75f, true);
    private long bytes;

    /** @param arrived is told when there is more to show */
    public Thumbnails(Work work, Runnable arrived) {
        this.work = work;
        this.arrived = arrived;
    }

    /** Forgets everything, and shows those of another layer from now on. */
    public void of(Optional<Source> newSource) {
        source = newSource;
        first.clear();
        sharper.clear();
        unreadable.clear();
        damaged.clear();
        kept.clear();
        bytes = 0;
    }

    /** The small picture of an item; empty until it is there, or when it can't be had. */
    public Optional<Image> get(String item) {
        var there = Optional.ofNullable(kept.get(item));
        if (there.isEmpty() && !unreadable.contains(item) && !underWay.contains(item)) {
            first.remove(item);
            first.add(item);
        }
        return there;
    }

    /** Whether it can't be shown. */
    public boolean isUnreadable(String item) {
        return unreadable.contains(item);
    }

    /** Whether a part of it is missing or can't be trusted. */
    public boolean isDamaged(String item) {
        return damaged.contains(item);
    }

    /** Drops what was asked for and is out of sight, and begins with the rest. */
    public void inSight(Set<String> items) {
        first.retainAll(items);
        sharper.retainAll(items);
        next();
    }

    private void next() {
        while (source.isPresent() && underWay.size() < AT_ONCE && !(first.isEmpty() && sharper.isEmpty())) {
            boolean quick = !first.isEmpty();
            var waiting = quick ? first : sharper;
            var item = waiting.removeLast();
            begin(item, quick, source.get());
        }
    }

    private void begin(String item, boolean quick, Source from) {
        underWay.add(item);
        work.start(
                "A picture",
                () -> decode(item, quick, from),
                result -> {
                    if (source.equals(Optional.of(from))) {
                        take(item, result);
                    }
                },
                () -> {
                    underWay.remove(item);
                    next();
                });
    }

    /** Empty when it can't be shown, which its place says. */
    private static Optional<Picture> decode(String item, boolean quick, Source from) {
        try (var media = from.open(item)) {
            return Optional.of(MediaWorkers.shared().picture(media, SIDE, quick));
        } catch (IOException e) {
            LOG.info("a picture can't be shown", e);
            return Optional.empty();
        }
    }

    private void take(String item, Optional<Picture> decoded) {
        if (decoded.isPresent()) {
            var picture = decoded.get();
            keep(item, Pixels.image(picture));
            if (picture.damaged()) {
                damaged.add(item);
            }
            if (picture.embedded() && Math.max(picture.width(), picture.height()) < SIDE) {
                sharper.add(item);
            }
        } else if (!kept.containsKey(item)) {
            unreadable.add(item);
        }
        arrived.run();
    }

    private void keep(String item, Image image) {
        var before = kept.put(item, image);
        bytes += size(image) - (before == null ? 0 : size(before));
        var eldest = kept.entrySet().iterator();
        while (bytes > KEPT && eldest.hasNext()) {
            bytes -= size(eldest.next().getValue());
            eldest.remove();
        }
    }

    private static long size(Image image) {
        return Math.round(4 * image.getWidth() * image.getHeight());
    }
}
