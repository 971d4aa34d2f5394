package app.custodex.app;

import app.custodex.link.HttpPhoneLink;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import java.net.URI;
import java.util.Optional;

/** One slot of the bench: a phone that is plugged in there, or was. */
public final class Bay {
    private final int number;
    private final HttpPhoneLink link;
    private volatile Optional<PhoneStatus> status = Optional.empty();
    private volatile Optional<PhoneIdentity> lastPhone = Optional.empty();

    Bay(int number, URI address) {
        this.number = number;
        this.link = new HttpPhoneLink(address);
    }

    /** Counts from 1. */
    public int number() {
        return number;
    }

    public HttpPhoneLink link() {
        return link;
    }

    /** What the phone said last; empty while none is plugged in. */
    public Optional<PhoneStatus> status() {
        return status;
    }

    /** The phone that was last known here, plugged in or not. */
    public Optional<PhoneIdentity> lastPhone() {
        return lastPhone;
    }

    /** Asks the phone and says whether anything is different now. */
    public boolean ask() {
        Optional<PhoneStatus> now;
        try {
            now = Optional.of(link.status());
        } catch (LinkException e) {
            now = Optional.empty();
        }
        boolean changed = !now.equals(status);
        status = now;
        now.flatMap(PhoneStatus::identity).ifPresent(phone -> lastPhone = Optional.of(phone));
        return changed;
    }
}
