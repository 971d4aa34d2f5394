package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Suppliers;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;

/**
 * What a phone's layers hold together: of each kind the state in the newest layer that took it in full, with what newer layers
 * have of it. Items whose stored copy is known to be damaged are left out, so that they are copied anew; of a sealed stack all that
 * lie in a damaged file, since that can't be mended and the next layer should not depend on it.
 */
public final class Below {
    private final Map<PhonePath, ManifestItem> items = new HashMap<>();
    private final Map<PhonePath, ManifestItem> damagedItems = new HashMap<>();
    /** Of these the stored bytes may be referred to, also when an item of the same path hides them. */
    private final List<ManifestItem> sound = new ArrayList<>();

    private final Supplier<Map<String, ManifestItem.Place>> byDigest = Suppliers.once(this::indexDigests);
    private final List<Problem> problems = new ArrayList<>();
    private final Set<Kind> open = EnumSet.allOf(Kind.class);

    Below() {}

    /** What a phone without layers has below. */
    public static Below nothing() {
        return new Below();
    }

    /** Whether layers further down could still add something. */
    boolean wanting() {
        return !open.isEmpty();
    }

    /** Adds what the next layer down holds. */
    void add(StoredLayer layer, Optional<CheckReport> lastCheck) throws IOException {
        var damaged = new HashSet<String>();
        var hit = new HashSet<PhonePath>();
        lastCheck.ifPresent(report -> {
            report.damage().forEach(damage -> damaged.add(damage.subject()));
            if (!layer.record().sealed()) {
                hit.addAll(report.items());
            }
        });
        try {
            layer.forEach(item -> add(item, damaged, hit));
        } catch (ProblemException e) {
            // Without its list of items a layer gives nothing; what it held is copied anew, or found further down.
            problems.add(e.problem());
            return;
        }
        open.removeAll(layer.record().whole());
    }

    private void add(ManifestItem item, Set<String> damaged, Set<PhonePath> hit) {
        var place = item.place();
        if (place.isEmpty() || !open.contains(item.kind())) {
            return;
        }
        boolean suspect = damaged.contains(place.get().content());
        if (suspect && (hit.isEmpty() || hit.contains(item.path()))) {
            damagedItems.putIfAbsent(item.path(), item);
            return;
        }
        items.putIfAbsent(item.path(), item);
        if (!suspect) {
            sound.add(item);
        }
    }

    private Map<String, ManifestItem.Place> indexDigests() {
        var index = HashMap.<String, ManifestItem.Place>newHashMap(sound.size());
        sound.forEach(item -> item.place().ifPresent(place -> index.putIfAbsent(item.digest(), place)));
        return index;
    }

    /** Layers whose list of items could not be read. */
    public List<Problem> problems() {
        return List.copyOf(problems);
    }

    public Optional<ManifestItem> find(PhonePath path) {
        return Optional.ofNullable(items.get(path));
    }

    /** What was there of this path, though its stored copy may be damaged: for telling what changed, not for taking over. */
    Optional<ManifestItem> known(PhonePath path) {
        return find(path).or(() -> Optional.ofNullable(damagedItems.get(path)));
    }

    Optional<ManifestItem.Place> place(String digest) {
        return Optional.ofNullable(byDigest.get().get(digest));
    }

    public Collection<ManifestItem> items() {
        return items.values();
    }
}
