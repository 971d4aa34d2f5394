package app.custodex.extract;

import app.custodex.base.Problem;
import app.custodex.base.Sizes;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Spine.View;
import app.custodex.extract.Extraction.Order;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * How much room is needed, as far as it is known before, and what the drive has.
 *
 * @param where the folder into which it goes
 * @param needed bytes of the files that are written as they are; what is made anew comes on top of them
 * @param largest bytes of the largest single file
 * @param free bytes on the drive
 * @param most bytes of a single file that the drive can hold; empty when nobody need care
 * @param about how long it takes, more or less
 */
public record Room(String where, long needed, long largest, long free, Optional<Long> most, Duration about) {
    /** Drives that hold no file of 4 GiB ("FAT32 File System Specification", Microsoft, 2000: the size has 32 bits; from memory). */
    private static final Set<String> SMALL = Set.of("vfat", "msdos", "fat", "fat32");

    private static final long MOST_OF_SMALL = (1L << 32) - 1;

    /** Looks at what is ordered, and at the drive on which a folder is, or will be. */
    public static Room of(Catalogue catalogue, List<Order> orders, Delivery.Form form, Path folder) throws IOException {
        long needed = 0;
        long largest = 0;
        var about = Duration.ZERO;
        for (var order : orders) {
            long bytes = 0;
            if (order.format().writesFilesAsTheyAre()) {
                var numbers = new BitSet();
                Arrays.stream(order.numbers()).forEach(number -> numbers.set((int) number));
                var spine = catalogue.spine();
                var seen = spine.see(new View(Optional.empty(), new BitSet(), Optional.of(numbers)));
                bytes = Arrays.stream(seen.bytes()).sum();
                needed += bytes;
                largest = Math.max(
                        largest,
                        Arrays.stream(seen.places())
                                .mapToLong(spine::bytes)
                                .max()
                                .orElse(0));
            }
            about = about.plus(order.format().pace(order.chosen()).time(order.count(), bytes));
        }
        boolean inOne = form == Delivery.Form.ZIP || form == Delivery.Form.SEALED;
        var there = folder.toAbsolutePath().normalize();
        while (!Files.exists(there) && there.getParent() != null) {
            there = there.getParent();
        }
        var drive = Files.getFileStore(there);
        return new Room(
                folder.toString(),
                needed,
                inOne ? needed : largest,
                drive.getUsableSpace(),
                SMALL.contains(drive.type().toLowerCase(Locale.ROOT)) ? Optional.of(MOST_OF_SMALL) : Optional.empty(),
                about);
    }

    /** Why it can't be written there; empty when it can, as far as is known. */
    public Optional<Problem> trouble() {
        if (needed > free) {
            return Optional.of(Problem.failure(
                    where,
                    Sizes.bytes(needed, Locale.UK) + " are needed at least, and " + Sizes.bytes(free, Locale.UK)
                            + " are free there",
                    "Choose another drive, or fewer things"));
        }
        if (most.filter(limit -> largest > limit).isPresent()) {
            return Optional.of(Problem.failure(
                    where,
                    "One file would have " + Sizes.bytes(largest, Locale.UK)
                            + ", and this drive holds none of 4 GB or more",
                    "Choose another drive, or files in a folder instead of one package"));
        }
        return Optional.empty();
    }
}
