package app.custodex.readers.files;

import app.custodex.model.Contact.Extra;
import com.github.mangstadt.vinnie.VObjectProperty;
import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** What a card holds beyond the fields of a contact, as it is written. */
final class VcardExtras {
    /** Tell of the file, not of the person. */
    private static final Set<String> OF_THE_FILE = Set.of("BEGIN", "END", "VERSION", "PRODID", "PROFILE");

    /** Have a field for as many as there are. */
    private static final Set<String> ALL = Set.of(
            "TEL",
            "EMAIL",
            "URL",
            "IMPP",
            "RELATED",
            "NOTE",
            "CATEGORIES",
            "NICKNAME",
            VcardReading.LABEL,
            VcardReading.OTHER_LABEL,
            VcardReading.RELATED,
            VcardReading.CHAT);

    /** Have a field for one. */
    private static final Set<String> FIRST = Set.of(
            "FN",
            "UID",
            "ORG",
            "TITLE",
            "ROLE",
            "REV",
            "BDAY",
            "ANNIVERSARY",
            VcardReading.BIRTHDAY,
            VcardReading.ANNIVERSARY,
            VcardReading.SOUND_GIVEN,
            VcardReading.SOUND_FAMILY);

    private static final int NAME_PARTS = 5;
    private static final int ADDRESS_PARTS = 7;

    /** Say how a value is written, or have a field. */
    private static final Set<String> KEPT_PARAMETERS = Set.of("TYPE", "PREF", "VALUE", "CHARSET", "ENCODING");

    private static final Set<String> BINARY = Set.of("PHOTO", "LOGO", "SOUND", "KEY");

    /** Larger ones are files of their own, and would be carried through every list. */
    private static final int LONGEST = 64 << 10;

    private final VcardParse card;
    private final VcardLosses losses;
    private final Map<String, Integer> seen = new HashMap<>();
    /** Values that the library could make nothing of, by the name of their property. */
    private final Map<String, Set<String>> raw = new HashMap<>();

    VcardExtras(VcardParse card, VcardLosses losses) {
        this.card = card;
        this.losses = losses;
        for (var property : card.card().getExtendedProperties()) {
            if (!property.getPropertyName().regionMatches(true, 0, "X-", 0, 2)) {
                raw.computeIfAbsent(property.getPropertyName().toUpperCase(Locale.ROOT), any -> new HashSet<>())
                        .add(VcardParse.text(property.getValue()));
            }
        }
    }

    /** @param unread names of properties with a field that did not take the first of them */
    List<Extra> of(Set<String> unread) {
        var extras = new ArrayList<Extra>();
        boolean photo = false;
        for (var property : card.written()) {
            var name = VcardParse.name(property);
            if (OF_THE_FILE.contains(name)) {
                continue;
            }
            int nth = seen.merge(name, 1, Integer::sum);
            boolean isPhoto = name.equals("PHOTO") && !photo && card.hasPhoto() && isInline(property);
            if (isPhoto) {
                photo = true;
            }
            if (isPhoto || isHeld(name, nth, property) && !unread.contains(name) && !isUnparsed(name, property)) {
                parameters(name, property);
                addressLabels(extras, name, property);
                continue;
            }
            add(extras, name, property);
        }
        return extras;
    }

    private static boolean isHeld(String name, int nth, VObjectProperty property) {
        return ALL.contains(name)
                || FIRST.contains(name) && nth == 1
                || name.equals("N") && nth == 1 && parts(property) <= NAME_PARTS
                || name.equals("ADR") && parts(property) <= ADDRESS_PARTS;
    }

    private static int parts(VObjectProperty property) {
        var value = VcardParse.text(property.getValue());
        int end = value.length();
        while (end > 0 && value.charAt(end - 1) == ';') {
            end--;
        }
        return VObjectPropertyValues.parseStructured(value.substring(0, end)).size();
    }

    /** What the library could not make sense of, it keeps under its name as it is. */
    private boolean isUnparsed(String name, VObjectProperty property) {
        return raw.getOrDefault(name, Set.of()).contains(VcardParse.text(property.getValue()));
    }

    private void parameters(String name, VObjectProperty property) {
        for (var parameter : property.getParameters().getMap().keySet()) {
            if (parameter != null
                    && !(name.equals("ADR") && parameter.equalsIgnoreCase("LABEL"))
                    && !KEPT_PARAMETERS.contains(parameter.toUpperCase(Locale.ROOT))) {
                losses.parameter(name, parameter.toUpperCase(Locale.ROOT));
            }
        }
    }

    /** The address as it goes on an envelope: a parameter in vCard 4.0, a property of its own before. */
    private static void addressLabels(List<Extra> extras, String name, VObjectProperty property) {
        if (name.equals("ADR")) {
            parameter(property, "LABEL")
                    .forEach(label -> extras.add(new Extra("LABEL", VObjectPropertyValues.escape(label))));
        }
    }

    private static boolean isInline(VObjectProperty property) {
        return VcardParse.text(property.getValue()).startsWith("data:")
                || property.getParameters().getMap().values().stream()
                        .flatMap(List::stream)
                        .anyMatch(value -> value.equalsIgnoreCase("b") || value.equalsIgnoreCase("base64"));
    }

    private void add(List<Extra> extras, String name, VObjectProperty property) {
        var value = VcardParse.text(property.getValue());
        if (value.isBlank()) {
            return;
        }
        if (value.length() > LONGEST) {
            losses.parameter(name, "of " + (value.length() >> 10) + " KB");
            return;
        }
        if (name.startsWith("X-")) {
            extras.add(new Extra(property.getName(), parametersOf(property, false), unescape(value)));
        } else if (BINARY.contains(name) && isInline(property) && !value.startsWith("data:")) {
            // As a data URL (RFC 2397), which every version can write.
            extras.add(
                    new Extra(name, parametersOf(property, true), "data:" + type(name, property) + ";base64," + value));
        } else {
            extras.add(new Extra(name, parametersOf(property, false), value));
        }
    }

    private static String type(String name, VObjectProperty property) {
        var type = parameter(property, "TYPE").stream().findFirst().orElse("").toLowerCase(Locale.ROOT);
        if (!type.matches("[a-z0-9.+-]+")) {
            return "application/octet-stream";
        }
        return switch (name) {
            case "KEY" -> "application/" + type;
            case "SOUND" -> "audio/" + type;
            default -> "image/" + type;
        };
    }

    private static List<String> parameter(VObjectProperty property, String name) {
        return property.getParameters().getMap().getOrDefault(name, List.of());
    }

    private static String parametersOf(VObjectProperty property, boolean inline) {
        var written = new ArrayList<String>();
        for (var parameter : property.getParameters().getMap().entrySet()) {
            var name = parameter.getKey() == null ? "TYPE" : parameter.getKey().toUpperCase(Locale.ROOT);
            boolean drop = name.equals("CHARSET")
                    || name.equals("ENCODING")
                    || inline && (name.equals("TYPE") || name.equals("VALUE"));
            for (var value : parameter.getValue()) {
                if (!drop && !value.equalsIgnoreCase("quoted-printable") && !value.equalsIgnoreCase("base64")) {
                    written.add(name + "=" + quoted(value));
                }
            }
        }
        return String.join(";", written);
    }

    private static String quoted(String value) {
        var safe = value.replace("\"", "'");
        return safe.matches(".*[:;,].*") ? '"' + safe + '"' : safe;
    }

    static String unescape(String value) {
        return VObjectPropertyValues.unescape(value);
    }
}
