package app.custodex.link;

import app.custodex.base.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;

/**
 * What a crate says of itself without being opened. A crate is the backup that a maker's own program left on a computer: a folder with
 * a label, the body that holds the files, and under a passphrase the key to the body.
 *
 * @param crate the form, from 1
 * @param made UTC
 * @param phone its own lasting identifier
 * @param name what the owner called the phone
 * @param bytes of the files in it
 * @param sealed whether the body is under a passphrase
 * @param contents how much of each kind was on the phone, by its own count
 */
public record CrateLabel(
        int crate,
        Instant made,
        Family family,
        String phone,
        String name,
        String model,
        String serial,
        String imei,
        String system,
        String region,
        ZoneId zone,
        long bytes,
        boolean sealed,
        List<KindCount> contents) {
    /** The only form that is known. */
    public static final int FORM = 1;

    public static final String FILE = "label.json";
    public static final String BODY = "body.crate";
    public static final String SEALED_BODY = "body.crate.age";

    /** The key to a sealed body, itself under the passphrase. */
    public static final String KEY = "key.age";

    private static final int LONGEST = 64 << 10;

    /** Whether a folder looks like a crate. */
    public static boolean isIn(Path folder) {
        return Files.isRegularFile(folder.resolve(FILE))
                && (Files.exists(folder.resolve(BODY)) || Files.exists(folder.resolve(SEALED_BODY)));
    }

    /** @throws IOException when it can't be read, or is none */
    public static CrateLabel read(Path folder) throws IOException {
        byte[] bytes;
        try (var in = Files.newInputStream(folder.resolve(FILE))) {
            bytes = in.readNBytes(LONGEST);
        }
        CrateLabel label;
        try {
            label = Json.LINE.readValue(bytes, CrateLabel.class);
        } catch (RuntimeException strange) {
            throw new IOException(strange);
        }
        if (label == null || label.crate != FORM || !label.isWhole()) {
            throw new IOException("not the label of a crate that is known here");
        }
        return label;
    }

    @SuppressWarnings("ConstantValue") // what is missing in a file is null, whatever the record says
    private boolean isWhole() {
        return made != null
                && family != null
                && !family.steps().contains(ReadinessStep.REACH)
                && phone != null
                && name != null
                && model != null
                && serial != null
                && imei != null
                && system != null
                && region != null
                && zone != null
                && contents != null
                && contents.stream().allMatch(count -> count != null && count.kind() != null);
    }

    /** @param identifier under which its layers are filed */
    PhoneIdentity identity(String identifier) {
        return new PhoneIdentity(identifier, name, family, model, serial, imei, system, region, zone, bytes, bytes);
    }
}
