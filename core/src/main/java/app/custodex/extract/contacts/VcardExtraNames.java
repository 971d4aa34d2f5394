package app.custodex.extract.contacts;

import app.custodex.extract.Clean;
import app.custodex.model.Contact.Extra;
import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import ezvcard.VCardVersion;
import ezvcard.property.RawProperty;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Under which name a vCard of a version writes what a contact has no field for: its own where the version knows it, else an X- name. */
final class VcardExtraNames {
    // RFC 2426 §3; those that may stand more than once
    private static final Set<String> OF_3 = Set.of(
            "SOURCE",
            "TZ",
            "GEO",
            "LOGO",
            "SOUND",
            "KEY",
            "LABEL",
            "MAILER",
            "SORT-STRING",
            "CLASS",
            "TITLE",
            "ROLE",
            "ORG",
            "PHOTO");

    // RFC 6350 §6; RFC 6474; RFC 6715; RFC 9554
    private static final Set<String> OF_4 = Set.of(
            "SOURCE",
            "TZ",
            "GEO",
            "LOGO",
            "SOUND",
            "KEY",
            "GENDER",
            "LANG",
            "MEMBER",
            "KIND",
            "FBURL",
            "CALADRURI",
            "CALURI",
            "XML",
            "FN",
            "TITLE",
            "ROLE",
            "ORG",
            "PHOTO",
            "BIRTHPLACE",
            "DEATHPLACE",
            "DEATHDATE",
            "EXPERTISE",
            "HOBBY",
            "INTEREST",
            "ORG-DIRECTORY",
            "CREATED",
            "GRAMGENDER",
            "LANGUAGE",
            "PRONOUNS",
            "SOCIALPROFILE",
            "CONTACT-URI");

    private VcardExtraNames() {}

    /** Empty for what has no value. */
    static Optional<RawProperty> of(VCardVersion version, Extra extra) {
        if (extra.value().isEmpty()) {
            return Optional.empty();
        }
        var name = extra.name().toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9-]", "-");
        boolean known = (version == VCardVersion.V4_0 ? OF_4 : OF_3).contains(name);
        var property = known
                ? new RawProperty(name, Clean.line(extra.value()))
                : new RawProperty(unknown(name), value(name, extra));
        parameters(property, extra.parameters(), version);
        return Optional.of(property);
    }

    private static String unknown(String name) {
        return name.startsWith("X-") ? name : name.equals("LABEL") ? "X-ADDRESS-LABEL" : "X-" + name;
    }

    /** Under a name of the standard it is written already. */
    private static String value(String name, Extra extra) {
        return name.startsWith("X-")
                ? VObjectPropertyValues.escape(Clean.text(extra.value()))
                : Clean.line(extra.value());
    }

    private static void parameters(RawProperty property, String written, VCardVersion version) {
        for (var parameter :
                written.isEmpty() ? new String[0] : written.split(";(?=(?:[^\"]*\"[^\"]*\")*[^\"]*$)", -1)) {
            int equals = parameter.indexOf('=');
            var name = equals < 0 ? "" : parameter.substring(0, equals);
            if (name.matches("[A-Za-z0-9-]+") && !(name.equals("PREF") && version != VCardVersion.V4_0)) {
                property.addParameter(
                        name, Clean.line(parameter.substring(equals + 1).replace("\"", "")));
            }
        }
        if (version != VCardVersion.V4_0 && property.getValue().startsWith("data:")) {
            property.setParameter("VALUE", "uri");
        }
    }
}
