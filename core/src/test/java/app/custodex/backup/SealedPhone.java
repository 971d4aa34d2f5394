package app.custodex.backup;

import app.custodex.base.Disk;
import app.custodex.base.RealDisk;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.Passphrase;
import app.custodex.seal.WeakSeal;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** A phone whose stack is sealed with a passphrase that opens fast. */
final class SealedPhone {
    private static final String WORDS = "weak, and only for this test";

    private SealedPhone() {}

    /** Makes a strongroom with the phone's seal and nothing else. */
    static Path seal(Path root, PhoneIdentity phone) throws IOException {
        try (var words = new Passphrase(WORDS.toCharArray())) {
            Strongroom.make(root, new RealDisk()).seal(phone, words);
        }
        var weak = WeakSeal.key(WORDS);
        try (var files = Files.walk(root)) {
            for (var key : files.filter(file -> file.endsWith("key.age")).toList()) {
                Files.write(key, weak);
            }
        }
        new RealDisk().delete(root.resolve("copies")); // of the key that was there before
        return root;
    }

    /** Opens it with the passphrase. */
    static Strongroom opened(Path root, Disk disk, PhoneIdentity phone) throws IOException {
        var strongroom = Strongroom.make(root, disk);
        try (var words = new Passphrase(WORDS.toCharArray())) {
            strongroom.open(phone, words);
        }
        return strongroom;
    }
}
