package app.custodex.readers.files;

import app.custodex.model.Contact.Extra;
import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** What a card holds beyond the fields of a contact, as it is written. */
final class VcardExtras {
    /** Say how a value is written, or have a field. */
    private static final Set<String> KEPT_PARAMETERS = Set.of("TYPE", "PREF", "VALUE", "CHARSET", "ENCODING");

    private static final Set<String> BINARY = Set.of("PHOTO", "LOGO", "SOUND", "KEY");

    /** Larger ones are files of their own, and would be carried through every list. */
    private static final int LONGEST = 64 << 10;

    private final VcardLosses losses;
    private final List<Extra> extras = new ArrayList<>();

    VcardExtras(VcardLosses losses) {
        this.losses = losses;
    }

    List<Extra> all() {
        return extras;
    }

    /** Keeps a property whole. */
    void keep(CardProperty property) {
        var value = property.value();
        if (value.isBlank()) {
            return;
        }
        if (value.length() > LONGEST) {
            losses.parameter(property.key(), "of " + (value.length() >> 10) + " KB");
            return;
        }
        if (property.key().startsWith("X-")) {
            extras.add(new Extra(property.name(), parameters(property, false), property.text()));
        } else if (BINARY.contains(property.key()) && property.isInline() && !value.startsWith("data:")) {
            // As a data URL (RFC 2397), which every version can write.
            extras.add(new Extra(
                    property.key(), parameters(property, true), "data:" + type(property) + ";base64," + value));
        } else {
            extras.add(new Extra(property.key(), parameters(property, false), value));
        }
    }

    /** Of a property whose value has gone into a field: keeps the label of an address, and counts parameters that no field has room for. */
    void keepParameters(CardProperty property) {
        boolean isAddress = property.key().equals("ADR");
        for (var parameter : property.parameters()) {
            if (isAddress && parameter.name().equals("LABEL")) {
                // The address as it goes on an envelope: a parameter in vCard 4.0, a property of its own before.
                extras.add(new Extra("LABEL", VObjectPropertyValues.escape(parameter.value())));
            } else if (!KEPT_PARAMETERS.contains(parameter.name())) {
                losses.parameter(property.key(), parameter.name());
            }
        }
    }

    private static String type(CardProperty property) {
        var type = property.parameter("TYPE").stream().findFirst().orElse("").toLowerCase(Locale.ROOT);
        if (!type.matches("[a-z0-9.+-]+")) {
            return "application/octet-stream";
        }
        return switch (property.key()) {
            case "KEY" -> "application/" + type;
            case "SOUND" -> "audio/" + type;
            default -> "image/" + type;
        };
    }

    private static String parameters(CardProperty property, boolean inline) {
        var written = new ArrayList<String>();
        for (var parameter : property.parameters()) {
            var name = parameter.name();
            boolean drop = name.equals("CHARSET")
                    || name.equals("ENCODING")
                    || inline && (name.equals("TYPE") || name.equals("VALUE"));
            if (!drop) {
                written.add(name + "=" + quoted(parameter.value()));
            }
        }
        return String.join(";", written);
    }

    private static String quoted(String value) {
        var safe = value.replace("^", "^^").replace("\n", "^n").replace("\"", "^'"); // RFC 6868 §3.1
        return safe.matches(".*[:;,].*") ? '"' + safe + '"' : safe;
    }
}
