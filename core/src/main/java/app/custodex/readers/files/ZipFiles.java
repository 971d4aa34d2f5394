package app.custodex.readers.files;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.util.Set;

/** Tells of archives that could not be looked into. What lies in the others is read by the readers of its kind. */
final class ZipFiles extends FileReader {
    ZipFiles() {
        super("zips", Set.of(Kind.OTHER), Set.of(".zip"), Set.of(ThingKind.FILE));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        phone.files().problem(path).ifPresent(sink::problem);
    }
}
