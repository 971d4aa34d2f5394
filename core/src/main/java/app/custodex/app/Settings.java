package app.custodex.app;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What the shop has settled.
 *
 * @param strongroom the strongroom that is in use; empty for the one in the home folder
 * @param strongroomId which one that is; empty as long as none was ever opened
 * @param movingTo where it was being moved when this was written
 * @param checks when layers are read back by themselves
 * @param ownPhones identifiers of phones and other sources that are the shop's own, and so need no consent
 * @param look of the window
 * @param formats in which format each group of things was extracted last, with its choices, by the codes of groups
 * @param handOutAs code of the form in which things were handed out last
 * @param columnSets columns of tables that are used again, by the names that somebody gave them
 */
public record Settings(
        Optional<Path> strongroom,
        Optional<String> strongroomId,
        Optional<Path> movingTo,
        CheckSchedule checks,
        Set<String> ownPhones,
        Look look,
        Map<String, String> formats,
        String handOutAs,
        Map<String, String> columnSets) {
    /**
     * How the window looks.
     *
     * @param night dark rather than light
     * @param percent of the size in which it was made
     */
    public record Look(boolean night, int percent) {
        public static final Look FIRST = new Look(false, 100);
    }

    /** When layers are read back without anybody asking. */
    public enum CheckSchedule {
        /** Only when somebody asks. */
        BY_HAND,
        /** While nobody works and nothing is copied. */
        WHEN_IDLE,
        /** Between one and five in the night. */
        AT_NIGHT
    }

    static final Settings FIRST = new Settings(
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            CheckSchedule.WHEN_IDLE,
            Set.of(),
            Look.FIRST,
            Map.of(),
            "",
            Map.of());

    public Settings {
        strongroom = strongroom == null ? Optional.empty() : strongroom;
        strongroomId = strongroomId == null ? Optional.empty() : strongroomId;
        movingTo = movingTo == null ? Optional.empty() : movingTo;
        checks = checks == null ? CheckSchedule.WHEN_IDLE : checks;
        ownPhones = ownPhones == null ? Set.of() : Set.copyOf(ownPhones);
        look = look == null ? Look.FIRST : look;
        formats = formats == null ? Map.of() : Map.copyOf(formats);
        handOutAs = handOutAs == null ? "" : handOutAs;
        columnSets = columnSets == null ? Map.of() : Map.copyOf(columnSets);
    }

    /**
     * Reads the settings; those of a new home when there are none.
     *
     * @throws ProblemException when they are there and can't be read: which strongroom is in use is not guessed
     */
    static Settings read(Path file) throws IOException {
        if (!Files.exists(file)) {
            return FIRST;
        }
        try {
            var settings = Json.PAGE.readValue(file.toFile(), Settings.class);
            if (settings != null) {
                return settings;
            }
        } catch (IOException | RuntimeException torn) {
            // Told below.
        }
        throw new ProblemException(Problem.failure(
                file.toString(),
                "The shop's settings can't be read, so it is not known which strongroom is in use",
                "Choose the strongroom again with \"strongroom use\"; the damaged file is kept beside it"));
    }

    Settings using(Path place, String id) {
        return new Settings(
                Optional.of(place),
                Optional.of(id),
                Optional.empty(),
                checks,
                ownPhones,
                look,
                formats,
                handOutAs,
                columnSets);
    }

    Settings movingTo(Path target) {
        return new Settings(
                strongroom, strongroomId, Optional.of(target), checks, ownPhones, look, formats, handOutAs, columnSets);
    }

    Settings with(CheckSchedule newChecks) {
        return settled(newChecks, ownPhones, look);
    }

    Settings with(Look newLook) {
        return settled(checks, ownPhones, newLook);
    }

    Settings withOwnPhone(String identifier) {
        var phones = new TreeSet<>(ownPhones);
        phones.add(identifier);
        return settled(checks, phones, look);
    }

    private Settings settled(CheckSchedule newChecks, Set<String> phones, Look newLook) {
        return new Settings(
                strongroom, strongroomId, movingTo, newChecks, phones, newLook, formats, handOutAs, columnSets);
    }

    Settings withFormats(Map<String, String> newFormats, String newHandOutAs) {
        return extracting(newFormats, newHandOutAs, columnSets);
    }

    /** @param columns empty to forget the name */
    Settings withColumns(String name, String columns) {
        var sets = new TreeMap<>(columnSets);
        if (columns.isEmpty()) {
            sets.remove(name);
        } else {
            sets.put(name, columns);
        }
        return extracting(formats, handOutAs, sets);
    }

    private Settings extracting(Map<String, String> newFormats, String newHandOutAs, Map<String, String> sets) {
        return new Settings(
                strongroom, strongroomId, movingTo, checks, ownPhones, look, newFormats, newHandOutAs, sets);
    }
}
