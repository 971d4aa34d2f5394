package app.custodex.app;

import app.custodex.link.ArchiveLink;
import app.custodex.link.CrateLink;
import app.custodex.link.FolderLink;
import app.custodex.link.HttpPhoneLink;
import app.custodex.link.LoftLink;
import app.custodex.link.PhoneLink;
import app.custodex.link.WebDavLink;
import java.net.URI;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Something that can be backed up and is known to this bench. Passwords and tokens are not part of it; they live in memory.
 *
 * @param bay the number of its bay, from 1; it keeps it as long as it is known here
 * @param key under which it is remembered here
 * @param identifier under which its layers are filed; a phone's own identifier counts for a phone
 * @param name what it is called on the bench
 * @param address where it is
 * @param certificate fingerprint of the certificate that was trusted at the first pairing
 */
public record Source(
        int bay, String key, String identifier, String name, Type type, URI address, Optional<String> certificate) {
    /** How it is reached. */
    public enum Type {
        PHONE("phone"),
        FOLDER("folder"),
        ARCHIVE("archive"),
        WEBDAV("webdav"),
        LOFT("loft"),
        CRATE("maker's backup");

        private final String label;

        Type(String label) {
            this.label = label;
        }

        /** The words shown to people. */
        public String label() {
            return label;
        }
    }

    public Source {
        Objects.requireNonNull(key);
        Objects.requireNonNull(identifier);
        Objects.requireNonNull(name);
        Objects.requireNonNull(type);
        Objects.requireNonNull(address);
    }

    /** @param strongroom is left out of a folder that holds it */
    PhoneLink link(Supplier<Path> strongroom) {
        return switch (type) {
            case PHONE -> new HttpPhoneLink(address);
            case FOLDER -> new FolderLink(identifier, name, Path.of(address), strongroom);
            case ARCHIVE -> new ArchiveLink(identifier, name, Path.of(address));
            case WEBDAV -> new WebDavLink(identifier, name, address, certificate);
            case LOFT -> new LoftLink(identifier, name, address);
            case CRATE -> new CrateLink(identifier, name, Path.of(address));
        };
    }

    Source trusting(String fingerprint) {
        return new Source(bay, key, identifier, name, type, address, Optional.of(fingerprint));
    }

    Source inBay(int number) {
        return new Source(number, key, identifier, name, type, address, certificate);
    }
}
