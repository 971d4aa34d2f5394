package app.custodex.link;

import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * The backups that makers' own programs left on this computer.
 *
 * @param found the newest first
 * @param problems what can't be looked into, each with what to do about it
 */
public record MakerBackups(List<Found> found, List<Problem> problems) {
    /** Where the makers' programs keep them, in the folder of the computer's user. */
    private static final List<String> USUAL = List.of("Ostrel copies", "Pellow copies");

    public MakerBackups {
        found = List.copyOf(found);
        problems = List.copyOf(problems);
    }

    /** @param bytes that it takes on the disk */
    public record Found(Path folder, CrateLabel label, long bytes) {}

    /**
     * Looks where they usually are.
     *
     * @param homes folders of users; one that is not there holds none
     */
    public static MakerBackups in(List<Path> homes) {
        var found = new ArrayList<Found>();
        var problems = new ArrayList<Problem>();
        for (var home : homes) {
            for (var usual : USUAL) {
                look(home.resolve(usual), found, problems);
            }
        }
        found.sort(Comparator.comparing((Found each) -> each.label().made()).reversed());
        return new MakerBackups(found, problems);
    }

    private static void look(Path place, List<Found> found, List<Problem> problems) {
        try (var folders = Files.newDirectoryStream(place)) {
            for (var folder : folders) {
                if (Files.isDirectory(folder)) {
                    lookInto(folder, found, problems);
                }
            }
        } catch (NoSuchFileException | NotDirectoryException none) {
            // Most computers have no such program.
        } catch (IOException | DirectoryIteratorException e) {
            problems.add(unreadable(place, e));
        }
    }

    private static void lookInto(Path folder, List<Found> found, List<Problem> problems) {
        try {
            if (!Files.isReadable(folder)) {
                throw new AccessDeniedException(folder.toString());
            }
            var label = CrateLabel.read(folder);
            found.add(new Found(folder, label, size(folder)));
        } catch (IOException e) {
            problems.add(unreadable(folder, e));
        }
    }

    private static long size(Path folder) throws IOException {
        try (var files = Files.list(folder)) {
            return files.mapToLong(file -> file.toFile().length()).sum();
        }
    }

    private static Problem unreadable(Path place, Exception e) {
        return e instanceof AccessDeniedException
                ? Problem.failure(
                        place.toString(),
                        "This user of the computer may not look into it",
                        "Open the folder's properties as its owner, allow reading for this user, and look again")
                : Problem.failure(
                        place.toString(),
                        "It holds no backup that can be read here",
                        "Look into the folder; add it as a folder to keep its files as they are");
    }
}
