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

    /** Among these lie the phone's own lists of them, which nobody would count. */
    private static final Set<Kind> MEDIA = EnumSet.of(Kind.PHOTOS, Kind.MUSIC);

    private static final Set<String> LISTS = Set.of(".db", ".db-wal", ".json", ".m3u8");

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
                    var kind = Layout.kindOf(family, path);
                    var count = counts.computeIfAbsent(kind, k -> new long[3]);
                    count[0]++;
                    count[1] += attributes.size();
                    if (MEDIA.contains(kind) && LISTS.contains(path.ending())) {
                        count[2]++;
                    }
                }
                return FileVisitResult.CONTINUE;
            }
        });
        var result = new ArrayList<KindCount>();
        for (var kind : Kind.values()) {
            var count = counts.getOrDefault(kind, new long[3]);
            long items = before.stream()
                    .filter(c -> c.kind() == kind && STORED.contains(kind))
                    .mapToLong(KindCount::items)
                    .findFirst()
                    .orElse(count[0] - count[2]);
            result.add(new KindCount(kind, items, count[0], count[1]));
        }
        return result;
    }
}
