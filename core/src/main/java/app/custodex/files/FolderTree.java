package app.custodex.files;

import app.custodex.link.PhonePath;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Files in their folders, as they lie on the phone, with how much each folder holds. */
public final class FolderTree {
    /** Something in the tree. */
    public sealed interface Node {
        PhonePath path();

        long bytes();

        /** Its own name; empty for the root. */
        default String name() {
            return path().name();
        }
    }

    /** A file. */
    public record Item(PhonePath path, long bytes, Instant modified) implements Node {}

    /**
     * A folder.
     *
     * @param items in it at any depth
     * @param bytes of all of them
     * @param children folders first, both by their names
     */
    public record Folder(PhonePath path, int items, long bytes, List<Node> children) implements Node {
        public Folder {
            children = List.copyOf(children);
        }
    }

    /** The data of an app, under its name. */
    public record OfApp(String name, Folder folder) implements Node {
        @Override
        public PhonePath path() {
            return folder.path();
        }

        @Override
        public long bytes() {
            return folder.bytes();
        }
    }

    private static final Comparator<Node> BY_NAME = Comparator.<Node, Boolean>comparing(Item.class::isInstance)
            .thenComparing(node -> node.name().toLowerCase(Locale.ROOT))
            .thenComparing(Node::path);

    private FolderTree() {}

    /** Puts files into their folders. */
    public static Folder of(List<Item> items) {
        var inside = new HashMap<PhonePath, List<Node>>();
        inside.put(PhonePath.ROOT, new ArrayList<>());
        for (var item : items) {
            for (var folder = item.path().parent();
                    inside.putIfAbsent(folder, new ArrayList<>()) == null;
                    folder = folder.parent()) {
                // and the folders that it lies in, up to one that is known
            }
            children(inside, item.path().parent()).add(item);
        }
        // The deepest first, so that what a folder holds is known when it is put into its own.
        var folders = new ArrayList<>(inside.keySet());
        folders.sort(Comparator.comparingInt(FolderTree::depth).reversed());
        for (var path : folders) {
            if (!path.equals(PhonePath.ROOT)) {
                children(inside, path.parent()).add(folder(path, children(inside, path)));
            }
        }
        return folder(PhonePath.ROOT, children(inside, PhonePath.ROOT));
    }

    private static List<Node> children(Map<PhonePath, List<Node>> inside, PhonePath folder) {
        return inside.computeIfAbsent(folder, path -> new ArrayList<>());
    }

    private static int depth(PhonePath path) {
        return path.equals(PhonePath.ROOT)
                ? 0
                : 1 + (int) path.text().chars().filter(c -> c == '/').count();
    }

    private static Folder folder(PhonePath path, List<Node> children) {
        int items = 0;
        long bytes = 0;
        for (var child : children) {
            items += switch (child) {
                case Folder folder -> folder.items();
                case OfApp app -> app.folder().items();
                case Item item -> 1;
            };
            bytes += child.bytes();
        }
        children.sort(BY_NAME);
        return new Folder(path, items, bytes, children);
    }

    /**
     * The data of apps, each under its name; apps without any file are left out, and so are files that are no app's.
     *
     * @param apps the names of apps, by the folders in which their data lies
     */
    public static Folder byApp(Map<PhonePath, String> apps, List<Item> items) {
        var nodes = new ArrayList<Node>();
        apps.forEach((path, name) -> {
            var own = items.stream().filter(item -> item.path().in(path)).toList();
            if (!own.isEmpty()) {
                nodes.add(new OfApp(name, at(path, of(own))));
            }
        });
        return folder(PhonePath.ROOT, nodes);
    }

    /** The folder of a path in a tree that has nothing beside it. */
    private static Folder at(PhonePath path, Folder from) {
        return from.path().equals(path)
                ? from
                : from.children().stream()
                        .filter(Folder.class::isInstance)
                        .map(Folder.class::cast)
                        .findFirst()
                        .map(only -> at(path, only))
                        .orElse(from);
    }

    /** The files whose path has all of the words, wherever they lie. */
    public static List<Item> find(List<Item> items, String typed) {
        var words = List.of(typed.strip().toLowerCase(Locale.ROOT).split("\\s+"));
        return items.stream()
                .filter(item -> {
                    var path = item.path().text().toLowerCase(Locale.ROOT);
                    return words.stream().allMatch(path::contains);
                })
                .toList();
    }
}
