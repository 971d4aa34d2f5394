package app.custodex.app;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.strongroom.StrongroomFinder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/**
 * What the shop has settled.
 *
 * @param strongroom the strongroom that is in use; empty for the one in the home folder
 * @param movingTo where it was being moved when this was written
 * @param checks when layers are read back by themselves
 */
public record Settings(Optional<Path> strongroom, Optional<Path> movingTo, CheckSchedule checks) {
    /** When layers are read back without anybody asking. */
    public enum CheckSchedule {
        /** Only when somebody asks. */
        BY_HAND,
        /** While nobody works and nothing is copied. */
        WHEN_IDLE,
        /** Between one and five in the night. */
        AT_NIGHT
    }

    private static final Settings FIRST = new Settings(Optional.empty(), Optional.empty(), CheckSchedule.WHEN_IDLE);

    /** Reads the settings; those of a new home when there are none or they are torn. */
    static Settings read(Path file) {
        try {
            var settings = Files.exists(file) ? Json.PAGE.readValue(file.toFile(), Settings.class) : FIRST;
            // A move that arrived but was cut before that was written down.
            return settings.movingTo().filter(StrongroomFinder::isStrongroom).isPresent()
                    ? new Settings(settings.movingTo(), Optional.empty(), settings.checks())
                    : new Settings(settings.strongroom(), Optional.empty(), settings.checks());
        } catch (IOException torn) {
            return FIRST;
        }
    }

    void write(Path file, Disk disk) throws IOException {
        var part = file.resolveSibling(file.getFileName() + ".part");
        disk.delete(part);
        disk.write(part, Json.PAGE.writeValueAsBytes(this));
        disk.move(part, file);
    }

    Settings with(Path newStrongroom) {
        return new Settings(Optional.of(newStrongroom), Optional.empty(), checks);
    }

    Settings movingTo(Path target) {
        return new Settings(strongroom, Optional.of(target), checks);
    }

    Settings with(CheckSchedule newChecks) {
        return new Settings(strongroom, movingTo, newChecks);
    }
}
