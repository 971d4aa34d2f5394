package app.custodex.readers.files;

import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A property of a card, as it is written.
 *
 * @param group joins properties of one card; empty for none
 * @param name as written
 * @param key the name in capitals
 * @param parameters in their order; one that vCard 2.1 writes without its name has the name that is meant
 * @param value decoded where it was quoted-printable, otherwise with its escapes
 */
record CardProperty(String group, String name, String key, List<Parameter> parameters, String value) {
    /** @param name in capitals */
    record Parameter(String name, String value) {}

    /** The value as a single text, without its escapes. */
    String text() {
        return VObjectPropertyValues.unescape(value);
    }

    /** The value as texts between commas. */
    List<String> list() {
        return VObjectPropertyValues.parseList(value);
    }

    /** The value as texts between semicolons. */
    List<String> parts() {
        return VObjectPropertyValues.parseSemiStructured(value);
    }

    /** The value as lists of texts between semicolons. */
    List<List<String>> lists() {
        return VObjectPropertyValues.parseStructured(value);
    }

    /** @param of the parameter, in capitals */
    List<String> parameter(String of) {
        var values = new ArrayList<String>(1);
        for (var parameter : parameters) {
            if (parameter.name().equals(of)) {
                values.add(parameter.value());
            }
        }
        return values;
    }

    /** All types, one by one, also where one parameter lists several. */
    List<String> types() {
        var types = new ArrayList<String>(2);
        for (var parameter : parameters) {
            if (parameter.name().equals("TYPE")) {
                // vCard 2.1 has no quotes, but some cards use them all the same.
                types.addAll(List.of(parameter.value().replace("\"", "").split(",")));
            }
        }
        return types;
    }

    /** The value of the VALUE parameter. */
    Optional<String> dataType() {
        return parameter("VALUE").stream().findFirst();
    }

    boolean isPreferred() {
        for (var parameter : parameters) {
            if (parameter.name().equals("PREF")) {
                return true;
            }
        }
        for (var type : types()) {
            if (type.equalsIgnoreCase("pref")) {
                return true;
            }
        }
        return false;
    }

    /** Whether the value is the picture, sound or key itself and not its address. */
    boolean isInline() {
        return value.startsWith("data:")
                || parameters.stream()
                        .anyMatch(parameter -> parameter.value().equalsIgnoreCase("b")
                                || parameter.value().equalsIgnoreCase("base64"));
    }
}
