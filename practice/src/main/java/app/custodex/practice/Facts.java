package app.custodex.practice;

import app.custodex.link.Family;
import app.custodex.link.KindCount;
import app.custodex.link.PhoneIdentity;
import java.time.ZoneId;
import java.util.List;

/**
 * What a practice phone is and holds; kept beside its files.
 *
 * @param port where it answers on loopback; the same each time it is plugged in
 */
record Facts(
        String identifier,
        String name,
        Family family,
        String model,
        String serial,
        String imei,
        String system,
        String region,
        ZoneId timeZone,
        long capacity,
        String passcode,
        int port,
        List<KindCount> contents) {
    PhoneIdentity identity() {
        return new PhoneIdentity(
                identifier, name, family, model, serial, imei, system, region, timeZone, capacity, used());
    }

    private long used() {
        return contents.stream().mapToLong(KindCount::bytes).sum();
    }

    Facts withPort(int newPort) {
        return new Facts(
                identifier,
                name,
                family,
                model,
                serial,
                imei,
                system,
                region,
                timeZone,
                capacity,
                passcode,
                newPort,
                contents);
    }

    Facts withContents(List<KindCount> newContents) {
        return new Facts(
                identifier,
                name,
                family,
                model,
                serial,
                imei,
                system,
                region,
                timeZone,
                capacity,
                passcode,
                port,
                newContents);
    }
}
