package app.custodex.extract;

import app.custodex.base.ProblemException;
import app.custodex.seal.Passphrase;
import app.custodex.seal.PassphraseStrength;
import java.util.List;
import java.util.Optional;

/**
 * As what things are handed out.
 *
 * @param passphrase of the customer, for what is sealed; lent while it is written
 */
public record Delivery(Form form, Optional<Passphrase> passphrase) {
    public static final Delivery FILES = new Delivery(Form.FILES, Optional.empty());

    public Delivery {
        if (form == Form.SEALED != passphrase.isPresent()) {
            throw new IllegalArgumentException("what is sealed needs a passphrase, and only that");
        }
    }

    /**
     * A sealed package.
     *
     * @param again the same, typed once more
     * @throws ProblemException when they differ, or when the passphrase would soon be guessed
     */
    public static Delivery sealed(Passphrase passphrase, Passphrase again) throws ProblemException {
        PassphraseStrength.require("The package", passphrase, again, List.of());
        return new Delivery(Form.SEALED, Optional.of(passphrase));
    }

    /** The sorts of it. */
    public enum Form {
        FILES("files", "Files in a folder"),
        CHECKSUMS("checksums", "Files in a folder, with a list of checksums (SHA-512)"),
        BAG("bag", "Package: a folder with a start page (BagIt)"),
        ZIP("zip", "Package in one file (BagIt, ZIP)"),
        SEALED("sealed", "Package in one file, sealed with a passphrase (BagIt, ZIP, age)");

        private final String code;
        private final String label;

        Form(String code, String label) {
            this.code = code;
            this.label = label;
        }

        /** On the command line. */
        public String code() {
            return code;
        }

        public String label() {
            return label;
        }

        /** Whether all of it is one package with a start page. */
        public boolean isPackage() {
            return this == BAG || this == ZIP || this == SEALED;
        }
    }
}
