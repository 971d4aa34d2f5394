package app.custodex.docket;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * That data of a phone was written into ordinary files outside of the strongroom: a line of the list of what was handed out. One is written
 * before the first file, without any, and further ones with the files that are complete.
 *
 * @param docket on which it was done; empty for the shop's own
 * @param phone identifier
 * @param at when it was begun, UTC; the same in all lines of one extraction
 * @param folder into which it went
 * @param complete whether nothing more follows
 */
public record HandOut(
        Optional<Integer> docket, String phone, Instant at, String folder, boolean complete, List<File> files) {
    public HandOut {
        Objects.requireNonNull(docket);
        Objects.requireNonNull(at);
        files = List.copyOf(files);
    }

    /**
     * One file.
     *
     * @param path absolute
     * @param bytes its size
     * @param sha512 its digest
     */
    public record File(String path, long bytes, String sha512) {}

    /** This line and a later one of the same extraction, as one. */
    HandOut and(HandOut later) {
        var all = new ArrayList<>(files);
        all.addAll(later.files);
        return new HandOut(docket, phone, at, folder, complete || later.complete, all);
    }
}
