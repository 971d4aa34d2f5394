package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.link.FileSource;
import app.custodex.link.Layout;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.model.Contact;
import java.io.IOException;
import java.util.List;

/** Reads the contacts of a phone. Damage becomes problems of the book; reading goes on. */
public final class ContactsReader {
    private ContactsReader() {}

    /** Contacts that were read before, with the photos where they are. */
    public static ContactBook reopen(
            List<Contact> contacts, List<Problem> problems, FileSource files, PhoneIdentity phone, PrivatePlace place) {
        return new ContactBook(
                contacts,
                problems,
                switch (phone.family()) {
                    case OSTREL -> new OstrelContacts.Portraits(files, place);
                    case PELLOW, FOLDER, ARCHIVE, WEBDAV, LOFT -> new VcardContacts.Photos(files);
                });
    }

    /**
     * @param place where a database may be put while it is open
     * @throws IOException when nothing can be read at all
     */
    public static ContactBook read(FileSource files, PhoneIdentity phone, PrivatePlace place) throws IOException {
        var numbers = new PhoneNumbers(phone.region());
        return switch (phone.family()) {
            case OSTREL -> new OstrelContacts(files, numbers, place).read();
            case PELLOW -> new VcardContacts(files, Layout.PELLOW_PEOPLE, numbers).read();
            case FOLDER, ARCHIVE, WEBDAV, LOFT -> new VcardContacts(files, PhonePath.ROOT, numbers).read();
        };
    }
}
