package app.custodex.strongroom;

import java.io.File;
import java.io.IOException;
import java.nio.file.FileVisitOption;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/** Looks for strongrooms on the drives of this computer, not deeper than a person would put one. */
public final class StrongroomFinder {
    private static final int DEPTH = 5;
    /** Of the system's own folders nothing is expected, and some of them are endless. */
    private static final Set<String> SYSTEM =
            Set.of("/proc", "/sys", "/dev", "/run/user", "/usr", "/lib", "/etc", "/boot", "/var", "/snap", "/opt");

    private StrongroomFinder() {}

    /** Where drives are mounted, by the customs of Linux, macOS and Windows, and this user's own folder. */
    public static List<Path> drives() {
        var places = new TreeSet<Path>();
        for (var place : List.of("/media", "/run/media", "/mnt", "/Volumes", System.getProperty("user.home", "/"))) {
            if (Files.isDirectory(Path.of(place))) {
                places.add(Path.of(place));
            }
        }
        if (File.separatorChar != '/') {
            for (var root : File.listRoots()) {
                places.add(root.toPath());
            }
        }
        return List.copyOf(places);
    }

    /** Whether one lies in this folder, be it damaged: its identity or its storage root is there. */
    public static boolean isStrongroom(Path folder) {
        return Files.exists(folder.resolve(StrongroomIdentity.FILE))
                || Files.exists(folder.resolve(SecondCopies.FOLDER).resolve(StrongroomIdentity.FILE))
                || Files.exists(folder.resolve(StorageRoot.FOLDER).resolve(StorageRoot.DECLARATION));
    }

    /** What lies below these places, in the order of their names; what can't be read is passed over. */
    public static List<Path> find(List<Path> places) throws IOException {
        var found = new TreeSet<Path>();
        for (var place : places) {
            Files.walkFileTree(place, EnumSet.noneOf(FileVisitOption.class), DEPTH, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes attributes) {
                    if (SYSTEM.contains(folder.toString())) {
                        return FileVisitResult.SKIP_SUBTREE;
                    }
                    if (isStrongroom(folder)) {
                        found.add(folder);
                        return FileVisitResult.SKIP_SUBTREE;
                    }
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFileFailed(Path file, IOException e) {
                    return FileVisitResult.CONTINUE;
                }
            });
        }
        return new ArrayList<>(found);
    }
}
