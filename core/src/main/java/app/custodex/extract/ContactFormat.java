package app.custodex.extract;

/** The open formats that contacts are written in, each with its choices. */
public sealed interface ContactFormat {
    /** The ending of its files, with the dot. */
    String ending();

    /**
     * @param version of the standard
     * @param filePerContact one file a contact, or all in one
     */
    record Vcard(Version version, boolean filePerContact) implements ContactFormat {
        @Override
        public String ending() {
            return ".vcf";
        }
    }

    /** Which vCard. */
    enum Version {
        /** RFC 6350: knows everything that Custodex does. */
        V4,
        /** RFC 2426: what older programs read. */
        V3
    }

    /**
     * RFC 4180, UTF-8.
     *
     * @param byteOrderMark begins with U+FEFF, by which spreadsheet programs know UTF-8
     * @param spreadsheetSafe puts ' before text that a spreadsheet would carry out as a formula
     */
    record Csv(boolean byteOrderMark, boolean spreadsheetSafe) implements ContactFormat {
        @Override
        public String ending() {
            return ".csv";
        }
    }

    /** One page that needs nothing else: photos inside, no scripts. */
    record Html() implements ContactFormat {
        @Override
        public String ending() {
            return ".html";
        }
    }
}
