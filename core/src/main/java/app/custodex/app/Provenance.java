package app.custodex.app;

import app.custodex.docket.Docket;
import app.custodex.extract.Material;
import app.custodex.extract.Origin;
import app.custodex.extract.Origin.Fact;
import app.custodex.extract.ZoneText;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.LayerRecord;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Optional;

/** Tells where extracted things come from: the docket, the phone and its layer. */
final class Provenance {
    private Provenance() {}

    /** @param layer empty for the phone itself */
    static Origin of(Mandate mandate, PhoneIdentity phone, Optional<LayerRecord> layer, ZoneId zone, Instant now) {
        var docket = switch (mandate) {
            case Mandate.OfDocket of -> Docket.label(of.number());
            case Mandate.OfShop shop -> "";
        };
        var facts = new ArrayList<Fact>();
        facts.add(new Fact("Docket", docket.isEmpty() ? "none; the shop's own" : docket));
        facts.add(new Fact("Phone", phone.name()));
        add(facts, "Model", phone.model());
        add(facts, "System", phone.system());
        add(facts, "Serial number", phone.serial());
        add(facts, "IMEI", phone.imei());
        facts.add(new Fact(
                "Read from",
                layer.map(record -> "layer " + record.number() + ", begun " + ZoneText.time(record.begun(), zone)
                                + ", made by " + record.tool() + (record.sealed() ? ", sealed" : ""))
                        .orElse("the phone itself; there is no layer")));
        facts.add(new Fact("Written", ZoneText.time(now, zone) + ", by " + Custodex.TOOL));
        return new Origin(docket, facts, Custodex.TOOL, now);
    }

    /** What a package is called. */
    static String title(Material material) {
        var docket = material.origin().docket();
        return material.phone() + (docket.isEmpty() ? "" : ", docket " + docket);
    }

    private static void add(ArrayList<Fact> facts, String label, String value) {
        if (!value.isBlank()) {
            facts.add(new Fact(label, value));
        }
    }
}
