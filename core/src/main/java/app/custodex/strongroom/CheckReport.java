package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.link.PhonePath;
import java.time.Instant;
import java.util.List;
import java.util.Objects;

/**
 * What was found when a layer was read back.
 *
 * @param layer its number
 * @param at when the check ended, UTC
 * @param files stored files that were read
 * @param bytes that were read
 * @param damage one problem for each stored file that is damaged or gone
 * @param items the items whose bytes are hit; empty where that can't be told without the passphrase
 * @param decrypted whether the content of a sealed layer was decrypted and compared too
 */
public record CheckReport(
        int layer, Instant at, int files, long bytes, List<Problem> damage, List<PhonePath> items, boolean decrypted) {
    public CheckReport {
        Objects.requireNonNull(at);
        damage = List.copyOf(damage);
        items = List.copyOf(items);
    }

    public boolean sound() {
        return damage.isEmpty();
    }
}
