package app.custodex.base;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.Set;

/** Whether other users of the computer are kept out of a folder. */
public final class Privacy {
    private static final Set<PosixFilePermission> OTHERS = Set.of(
            PosixFilePermission.GROUP_READ,
            PosixFilePermission.GROUP_WRITE,
            PosixFilePermission.GROUP_EXECUTE,
            PosixFilePermission.OTHERS_READ,
            PosixFilePermission.OTHERS_WRITE,
            PosixFilePermission.OTHERS_EXECUTE);

    private Privacy() {}

    /** Whether only its owner may look into a folder, or write to it. Windows keeps users' folders apart in its own way. */
    public static boolean isOwnersOnly(Path folder) throws IOException {
        if (!folder.getFileSystem().supportedFileAttributeViews().contains("posix")) {
            return true;
        }
        return Files.getPosixFilePermissions(folder).stream().noneMatch(OTHERS::contains);
    }

    /** Keeps other users out of a folder, as far as its file system and its owner allow it. */
    public static void keepOthersOut(Path folder) throws IOException {
        if (isOwnersOnly(folder)) {
            return;
        }
        try {
            var permissions = Files.getPosixFilePermissions(folder);
            permissions.removeAll(OTHERS);
            Files.setPosixFilePermissions(folder, permissions);
        } catch (IOException notOurs) {
            // That others can read it is told wherever the strongroom is looked at.
        }
    }
}
