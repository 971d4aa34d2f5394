package app.custodex.app;

import app.custodex.base.Disk;
import app.custodex.base.FileLease;
import app.custodex.base.Json;
import app.custodex.base.SafeNames;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** The shop's settings on the disk. Several programs may use them: a change is made to what is there, and seen by the others. */
final class SettingsFile {
    private final Path file;
    private final Disk disk;
    private Settings last = Settings.FIRST;
    private Optional<Stamp> seen = Optional.empty();

    /** What tells one state of the file from another. It is replaced as a whole, so its key changes, too. */
    private record Stamp(FileTime modified, long size, Optional<Object> key) {}

    SettingsFile(Path file, Disk disk) {
        this.file = file;
        this.disk = disk;
    }

    /** What is settled now. */
    synchronized Settings now() throws IOException {
        var stamp = stamp();
        if (!stamp.equals(seen)) {
            last = Settings.read(file);
            seen = stamp;
        }
        return last;
    }

    private Optional<Stamp> stamp() throws IOException {
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        var attributes = Files.readAttributes(file, BasicFileAttributes.class);
        return Optional.of(
                new Stamp(attributes.lastModifiedTime(), attributes.size(), Optional.ofNullable(attributes.fileKey())));
    }

    synchronized Settings change(UnaryOperator<Settings> change) throws IOException {
        disk.createFolders(Disk.parent(file));
        try (var lease = FileLease.awaitAlone(file.resolveSibling("settings.lock"))) {
            var before = Settings.read(file);
            var after = change.apply(before);
            if (!after.equals(before)) {
                disk.replace(file, Json.PAGE.writeValueAsBytes(after));
            }
            return after;
        }
    }

    /** Puts a file that can't be read aside, where a person can look at it. */
    synchronized void putAsideIfDamaged() throws IOException {
        try {
            Settings.read(file);
        } catch (IOException damaged) {
            disk.move(file, SafeNames.free(Disk.parent(file), "settings-damaged", ".json"));
        }
    }
}
