package app.custodex.extract;

import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.SentIn;
import app.custodex.media.Picture;
import app.custodex.media.SoundCoding;
import app.custodex.model.Contact;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;

/** What those who write ask of the phone, or of its layer. */
public interface Material {
    /** What it is called. */
    String phone();

    /** Where all of it comes from. */
    Origin origin();

    /** In which times are written. */
    ZoneId zone();

    Catalogue catalogue();

    /** What to call people. */
    Catalogue.Names names();

    /** In which conversations files were sent or came. */
    SentIn sentIn();

    /** A contact's photo, as it was stored; empty when there is none. */
    Optional<byte[]> photo(Contact contact) throws IOException;

    /** The items in a folder and in those below it. */
    List<String> items(String folder) throws IOException;

    /** The content of an item. */
    InputStream open(String item) throws IOException;

    /** The SHA-512 digest that an item has by the records of its layer; empty where none is kept. */
    Optional<String> digest(String item) throws IOException;

    /**
     * A picture, or the first of a video; empty when it can't be decoded.
     *
     * @param side the most pixels along its longer side
     */
    Optional<Picture> picture(String item, int side) throws IOException;

    /**
     * Writes the sound of an item in another form.
     *
     * @param kilobits a second of stereo, where the coding asks for it
     * @return whether it is complete; else it can't be decoded, and what was written is worth nothing
     */
    boolean convert(String item, SoundCoding coding, int kilobits, OutputStream out) throws IOException;

    /** When an item was last changed. */
    Instant modified(String item) throws IOException;
}
