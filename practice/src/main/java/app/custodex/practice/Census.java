package app.custodex.practice;

import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.Layout;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Counts what lies on a practice phone, as its settings page would show it. */
final class Census {
    /** Kinds that live in stores: their items are not files and keep the count that was made when they were written. */
    private static final Set<Kind> STORED =
            EnumSet.of(Kind.CONTACTS, Kind.CONVERSATIONS, Kind.CALLS, Kind.CALENDARS, Kind.NOTES, Kind.WEB);

    private Census() {}

    static List<KindCount> of(Family family, Path files, List<KindCount> before) throws IOException {
        Map<Kind, long[]> counts = new EnumMap<>(Kind.class);
        Files.walkFileTree(files, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                if (attributes.isRegularFile()) {
                    var path = new PhonePath(files.relativize(file)
                            .toString()
                            .replace(files.getFileSystem().getSeparator(), "/"));
                    var count = counts.computeIfAbsent(Layout.kindOf(family, path), k -> new long[2]);
                    if (!path.ending().equals(".db")
                            && !path.ending().equals(".db-wal")
                            && !path.ending().equals(".json")) {
                        count[0]++;
                    }
                    count[1] += attributes.size();
                }
                return FileVisitResult.CONTINUE;
            }
        });
        var result = new ArrayList<KindCount>();
        for (var kind : Kind.values()) {
            var count = counts.getOrDefault(kind, new long[2]);
            long items = before.stream()
                    .filter(c -> c.kind() == kind && STORED.contains(kind))
                    .mapToLong(KindCount::items)
                    .findFirst()
                    .orElse(count[0]);
            result.add(new KindCount(kind, items, count[0], count[1]));
        }
        return result;
    }
}
