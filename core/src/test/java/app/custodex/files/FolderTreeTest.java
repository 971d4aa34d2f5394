package app.custodex.files;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.files.FolderTree.Folder;
import app.custodex.files.FolderTree.Item;
import app.custodex.files.FolderTree.Node;
import app.custodex.files.FolderTree.OfApp;
import app.custodex.link.PhonePath;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

final class FolderTreeTest {
    private static Item item(String path, long bytes) {
        return new Item(new PhonePath(path), bytes, Instant.EPOCH);
    }

    private static List<String> names(Folder folder) {
        return folder.children().stream().map(Node::name).toList();
    }

    private static Folder folder(Folder in, String name) {
        return in.children().stream()
                .filter(node -> node.name().equals(name))
                .map(Folder.class::cast)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void filesStandInTheirFoldersWithWhatTheseHold() {
        var tree = FolderTree.of(List.of(
                item("roll/2025/b.jpg", 20),
                item("roll/2025/A.jpg", 10),
                item("roll/old.jpg", 5),
                item("notes.txt", 1),
                item("store/db", 100)));
        assertEquals(List.of("roll", "store", "notes.txt"), names(tree));
        assertEquals(136, tree.bytes());
        assertEquals(5, tree.items());
        var roll = folder(tree, "roll");
        assertEquals(35, roll.bytes());
        assertEquals(3, roll.items());
        assertEquals(List.of("2025", "old.jpg"), names(roll));
        assertEquals(List.of("A.jpg", "b.jpg"), names(folder(roll, "2025")));
    }

    @Test
    void theDataOfAppsStandsUnderTheirNames() {
        var items = List.of(
                item("App data/org.example.tides/db/tides.db", 20),
                item("App data/org.example.tides/settings.xml", 5),
                item("App data/org.example.tidesplus/x", 9),
                item("Pictures/a.jpg", 1));
        var tree = FolderTree.byApp(
                Map.of(
                        new PhonePath("App data/org.example.tides"), "Tide clock",
                        new PhonePath("App data/org.example.gone"), "Gone"),
                items);
        assertEquals(List.of("Tide clock"), names(tree));
        assertEquals(2, tree.items());
        assertEquals(25, tree.bytes());
        var app = (OfApp) tree.children().getFirst();
        assertEquals(List.of("db", "settings.xml"), names(app.folder()));
    }

    private static Stream<Item> all(Folder folder) {
        return folder.children().stream().flatMap(node -> switch (node) {
            case Item item -> Stream.of(item);
            case Folder inside -> all(inside);
            case OfApp app -> all(app.folder());
        });
    }

    @Test
    void everyFileIsThereOnceHoweverDeepItLies() {
        var random = new Random(4);
        var items = new ArrayList<Item>();
        for (int i = 0; i < 2_000; i++) {
            var path = new StringBuilder("f");
            for (int depth = random.nextInt(9); depth > 0; depth--) {
                path.append(random.nextInt(3)).append('/').append("g");
            }
            items.add(item(path.append(i).toString(), random.nextInt(1_000)));
        }
        var tree = FolderTree.of(items);
        assertEquals(items.size(), tree.items());
        assertEquals(items.stream().mapToLong(Item::bytes).sum(), tree.bytes());
        assertEquals(
                items.stream().map(Item::path).sorted().toList(),
                all(tree).map(Item::path).sorted().toList());
        assertEquals(0, FolderTree.of(List.of()).items());
    }

    @Test
    void filesAreFoundByAnyPartOfTheirPath() {
        var items = List.of(item("Roll/2025/Storm night.jpg", 1), item("roll/storm.txt", 1), item("notes/night", 1));
        assertEquals(List.of(items.getFirst()), FolderTree.find(items, " roll NIGHT "));
        assertEquals(2, FolderTree.find(items, "storm").size());
        assertEquals(3, FolderTree.find(items, "").size());
    }
}
