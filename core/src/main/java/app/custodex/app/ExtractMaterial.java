package app.custodex.app;

import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.SentIn;
import app.custodex.extract.Material;
import app.custodex.extract.UnreadableException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.Contact;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;

/** What those who write ask of an open phone, while it is held open for them. */
record ExtractMaterial(OpenPhone open, FileSource source, ZoneId zone, PictureOf picture) implements Material {
    /** Gives a contact's photo. */
    interface PictureOf {
        Optional<byte[]> of(Contact contact) throws IOException;
    }

    @Override
    public String phone() {
        return open.phone().name();
    }

    @Override
    public Catalogue catalogue() {
        return open.catalogue();
    }

    @Override
    public Catalogue.Names names() {
        return open.names();
    }

    @Override
    public SentIn sentIn() {
        return open.sentIn();
    }

    @Override
    public Optional<byte[]> photo(Contact contact) throws IOException {
        return picture.of(contact);
    }

    @Override
    public InputStream open(String item) throws IOException {
        return UnreadableException.tell(() -> source.open(new PhonePath(item)));
    }

    @Override
    public Instant modified(String item) throws IOException {
        return source.facts(new PhonePath(item)).modified();
    }
}
