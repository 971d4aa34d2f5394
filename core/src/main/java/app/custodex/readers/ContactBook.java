package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.model.Contact;
import java.io.Closeable;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/** All contacts of a layer. Photos are read when they are asked for; close it when nobody will ask any more. */
public final class ContactBook implements Closeable {
    /** Reads one contact's photo. */
    interface Photos extends Closeable {
        /** The picture as it was stored; empty when there is none. */
        Optional<byte[]> of(Contact contact) throws IOException;
    }

    private final List<Contact> contacts;
    private final List<Problem> problems;
    private final Photos photos;

    ContactBook(List<Contact> contacts, List<Problem> problems, Photos photos) {
        this.contacts = List.copyOf(contacts);
        this.problems = List.copyOf(problems);
        this.photos = photos;
    }

    /** In the phone's own order. */
    public List<Contact> contacts() {
        return contacts;
    }

    /** What could not be read, or not in full. */
    public List<Problem> problems() {
        return problems;
    }

    public Optional<byte[]> photo(Contact contact) throws IOException {
        return contact.hasPhoto() ? photos.of(contact) : Optional.empty();
    }

    @Override
    public void close() throws IOException {
        photos.close();
    }
}
