package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.link.FileSource;
import app.custodex.link.PhoneIdentity;
import java.io.IOException;

/** Reads the contacts of a phone. Damage becomes problems of the book; reading goes on. */
public final class ContactsReader {
    private ContactsReader() {}

    /**
     * @param place where a database may be put while it is open
     * @throws IOException when nothing can be read at all
     */
    public static ContactBook read(FileSource files, PhoneIdentity phone, PrivatePlace place) throws IOException {
        var numbers = new PhoneNumbers(phone.region());
        return switch (phone.family()) {
            case OSTREL -> new OstrelContacts(files, numbers, place).read();
            case PELLOW -> new PellowContacts(files, numbers).read();
        };
    }
}
