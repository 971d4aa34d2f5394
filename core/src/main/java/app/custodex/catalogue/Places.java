package app.custodex.catalogue;

import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Thing;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Where things were taken, in the order of their numbers. */
public final class Places {
    /** Ten millionths of a degree, about a centimetre. */
    private static final double FINEST = 1e7;

    private static final int BITS = 32;

    private record Placed(int number, Place place) {}

    private final List<Placed> all;

    private Places(List<Placed> all) {
        this.all = all;
    }

    /** Where a thing was taken; empty when it does not say so, or says what is no place on earth. */
    static Optional<Place> of(Thing thing) {
        return thing instanceof MediaFile file
                ? file.place().filter(place -> Math.abs(place.latitude()) <= 90 && Math.abs(place.longitude()) <= 180)
                : Optional.empty();
    }

    /** In one number, which is how it is kept. */
    static long packed(Place place) {
        return Math.round(place.latitude() * FINEST) << BITS | Math.round(place.longitude() * FINEST) & 0xffff_ffffL;
    }

    static Place unpacked(long packed) {
        return new Place((packed >> BITS) / FINEST, (int) packed / FINEST);
    }

    static Places load(Connection db) throws SQLException {
        var all = new ArrayList<Placed>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, place FROM thing WHERE place IS NOT NULL ORDER BY id")) {
            while (rows.next()) {
                all.add(new Placed(rows.getInt(1), unpacked(rows.getLong(2))));
            }
        }
        return new Places(all);
    }

    public int size() {
        return all.size();
    }

    /** The number of a thing in the catalogue. */
    public int number(int i) {
        return all.get(i).number();
    }

    /** Where it was taken. */
    public Place place(int i) {
        return all.get(i).place();
    }
}
