package app.custodex.app;

import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.SentIn;
import app.custodex.extract.Material;
import app.custodex.extract.Origin;
import app.custodex.extract.UnreadableException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import app.custodex.media.SoundCoding;
import app.custodex.media.StreamSource;
import app.custodex.media.UnplayableException;
import app.custodex.model.Contact;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;

/** What those who write ask of an open phone, while it is held open for them. */
record ExtractMaterial(OpenPhone open, FileSource source, ZoneId zone, Origin origin, PictureOf photo)
        implements Material {
    /** What lies in an archive of the layer has no digest of its own there. */
    private static final Predicate<String> IS_DIGEST =
            Pattern.compile("[0-9a-f]{128}").asMatchPredicate();

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
        return photo.of(contact);
    }

    @Override
    public List<String> items(String folder) throws IOException {
        return UnreadableException.whileReading(() ->
                source.in(new PhonePath(folder)).stream().map(PhonePath::text).toList());
    }

    @Override
    public InputStream open(String item) throws IOException {
        return UnreadableException.tell(() -> source.open(new PhonePath(item)));
    }

    @Override
    public Optional<String> digest(String item) throws IOException {
        return saved(open, source, new PhonePath(item));
    }

    /** The SHA-512 digest that an item has by the records of its layer; empty where none is kept. */
    static Optional<String> saved(OpenPhone open, FileSource source, PhonePath item) throws IOException {
        return open.layer().isEmpty()
                ? Optional.empty()
                : Optional.of(source.facts(item).version()).filter(IS_DIGEST);
    }

    @Override
    public Optional<Picture> picture(String item, int side) throws IOException {
        try (var media = media(item)) {
            return Optional.of(MediaWorkers.shared().picture(media, side, false));
        } catch (UnplayableException e) {
            return Optional.empty();
        }
    }

    @Override
    public boolean convert(String item, SoundCoding coding, int kilobits, OutputStream out) throws IOException {
        try (var media = media(item)) {
            MediaWorkers.shared().convert(media, coding, kilobits, Optional.empty(), out);
            return true;
        } catch (UnplayableException e) {
            return false;
        }
    }

    /**
     * The content of an item that is decoded; what can't be read of it is told as that of any other. The phone is held open for all of it: it
     * must not be asked for here, by another thread, while somebody waits to close it.
     */
    private MediaSource media(String item) throws UnreadableException {
        var path = new PhonePath(item);
        var media = UnreadableException.whileReading(
                () -> new StreamSource(source.facts(path).bytes(), () -> source.open(path)));
        return new MediaSource() {
            @Override
            public long size() {
                return media.size();
            }

            @Override
            public int read(long position, ByteBuffer into) throws IOException {
                return UnreadableException.whileReading(() -> media.read(position, into));
            }

            @Override
            public void close() throws IOException {
                media.close();
            }
        };
    }

    @Override
    public Instant modified(String item) throws IOException {
        return source.facts(new PhonePath(item)).modified();
    }
}
