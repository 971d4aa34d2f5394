package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.link.FileSource;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** A phone's files while they are read, with what readers share: databases are opened once, numbers are worked out once. */
public final class PhoneFiles implements Closeable {
    private final FileSource files;
    private final PhoneIdentity phone;
    private final PrivatePlace place;
    private final PhoneNumbers numbers;
    private final Map<PhonePath, PhoneDatabase> databases = new HashMap<>();
    private final Map<PhonePath, Map<String, Long>> places = new HashMap<>();

    /** @param place where a database may be put while it is open */
    public PhoneFiles(FileSource files, PhoneIdentity phone, PrivatePlace place) {
        this.files = files;
        this.phone = phone;
        this.place = place;
        this.numbers = new PhoneNumbers(phone.region());
    }

    public FileSource files() {
        return files;
    }

    /** For times that have no zone of their own. */
    public ZoneId zone() {
        return phone.timeZone();
    }

    public InputStream open(PhonePath path) throws IOException {
        return files.open(path);
    }

    /** The number in the form of ITU-T E.164, as it is dialled in the phone's region; empty when it could not be. */
    public String e164(String written) {
        return numbers.e164(written);
    }

    /**
     * The database in a file; it stays open until the reading ends.
     *
     * @throws IOException when it is no database
     */
    public synchronized PhoneDatabase database(PhonePath path) throws IOException {
        var there = databases.get(path);
        if (there == null) {
            there = PhoneDatabase.open(files, path, place);
            databases.put(path, there);
        }
        return there;
    }

    /** Finds out where in a file its things begin. */
    public interface Places {
        /** @return offsets by the keys of the things */
        Map<String, Long> find() throws IOException;
    }

    /** Where in a file the thing of a key begins; the file is gone through once for all of its things. */
    public synchronized Optional<Long> place(PhonePath path, String key, Places of) throws IOException {
        var known = places.get(path);
        if (known == null) {
            known = of.find();
            places.put(path, known);
        }
        return Optional.ofNullable(known.get(key));
    }

    @Override
    public synchronized void close() throws IOException {
        for (var database : databases.values()) {
            database.close();
        }
        databases.clear();
    }
}
