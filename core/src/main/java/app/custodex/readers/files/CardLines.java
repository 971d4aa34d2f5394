package app.custodex.readers.files;

import app.custodex.readers.files.CardProperty.Parameter;
import com.github.mangstadt.vinnie.codec.DecoderException;
import com.github.mangstadt.vinnie.codec.QuotedPrintableCodec;
import ezvcard.VCardDataType;
import ezvcard.VCardVersion;
import ezvcard.parameter.Encoding;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Splits the unfolded lines of one card into its properties, by vCard 2.1 §2.1, RFC 6350 §3.3 and RFC 6868. A library could do it, but
 * takes half as long again, and a phone can hold tens of thousands of cards with a dozen lines each. What the values mean is decided by
 * {@link VcardReading}.
 */
final class CardLines {
    private static final String VERSION = "VERSION";
    private static final Map<String, VCardVersion> VERSIONS = Arrays.stream(VCardVersion.values())
            .collect(Collectors.toMap(VCardVersion::getVersion, version -> version));

    private final String text;
    private final VcardLosses losses;
    private final VCardVersion version;
    private final boolean old;
    private final List<CardProperty> properties = new ArrayList<>();

    /** How many BEGIN lines have no END yet: more than one inside an embedded card. */
    private int depth;

    CardLines(String text, VcardLosses losses) {
        this.text = text;
        this.losses = losses;
        version = CardLine.first(text, VERSION, any -> true)
                .flatMap(line -> version(text.substring(line.value(), line.end())))
                .orElse(VCardVersion.V2_1); // of which one without a version is
        old = version == VCardVersion.V2_1;
        for (int start = 0; start < text.length(); ) {
            int end = text.indexOf("\r\n", start);
            int until = end < 0 ? text.length() : end;
            if (until > start) {
                line(start, until);
            }
            start = until + 2;
        }
    }

    private static Optional<VCardVersion> version(String written) {
        return Optional.ofNullable(VERSIONS.get(written.strip()));
    }

    VCardVersion version() {
        return version;
    }

    /** In the order of the card, without BEGIN, END and VERSION. */
    List<CardProperty> properties() {
        return properties;
    }

    private void line(int start, int end) {
        int at = start;
        int name = start;
        while (at < end && text.charAt(at) != ';' && text.charAt(at) != ':') {
            if (text.charAt(at) == '.' && name == start) {
                name = at + 1;
            }
            at++;
        }
        var written = text.substring(name, at);
        var parameters = new ArrayList<Parameter>(2);
        while (at < end && text.charAt(at) == ';') {
            at = parameter(at + 1, end, parameters);
        }
        if (at == end) {
            losses.noProperty();
            return;
        }
        var group = name == start ? "" : text.substring(start, name - 1);
        take(group, written, parameters, text.substring(at + 1, end));
    }

    private void take(String group, String name, List<Parameter> parameters, String value) {
        var key = name.strip().toUpperCase(Locale.ROOT);
        switch (key) {
            case "BEGIN" -> depth++;
            case "END" -> depth--;
            case VERSION -> {
                if (version(value).isEmpty()) {
                    losses.odd();
                }
            }
            default -> {
                // A card inside the card: each of its lines is kept with the name of what it is in.
                var inside = depth > 1 ? "X-AGENT-" : "";
                properties.add(
                        new CardProperty(group, inside + name, inside + key, parameters, decoded(value, parameters)));
            }
        }
    }

    /** @return where the semicolon or colon behind it is */
    private int parameter(int start, int end, List<Parameter> to) {
        var name = "";
        var value = new StringBuilder();
        boolean quoted = false;
        int at = start;
        for (; at < end; at++) {
            char c = text.charAt(at);
            if (!quoted && (c == ';' || c == ':')) {
                break;
            }
            if (name.isEmpty()) {
                if (c == '=') {
                    name = value.toString().strip().toUpperCase(Locale.ROOT);
                    value.setLength(0);
                } else {
                    value.append(c);
                }
            } else if (escaped(at, end) != 0) {
                value.append(escaped(at++, end));
            } else if (!old && c == '"') {
                quoted = !quoted;
            } else if (!old && !quoted && c == ',') {
                add(name, value, to);
            } else {
                value.append(c);
            }
        }
        add(name, value, to);
        return at;
    }

    /** The character that an escape sequence of two characters stands for here (a backslash in vCard 2.1, RFC 6868 since); 0 if there is none. */
    private char escaped(int at, int end) {
        char next = at + 1 < end ? text.charAt(at + 1) : 0;
        if (old) {
            return text.charAt(at) == '\\' && (next == '\\' || next == ';') ? next : 0;
        }
        if (text.charAt(at) != '^') {
            return 0;
        }
        return switch (next) {
            case '^' -> '^';
            case 'n' -> '\n';
            case '\'' -> '"';
            default -> 0;
        };
    }

    private void add(String name, StringBuilder value, List<Parameter> to) {
        var text = old ? value.toString().stripLeading() : value.toString();
        value.setLength(0);
        to.add(new Parameter(name.isEmpty() ? meant(text) : name, text));
    }

    /** The name that vCard 2.1 may leave out. */
    private static String meant(String value) {
        if (VCardDataType.find(value) != null) {
            return "VALUE";
        }
        return Encoding.find(value) != null ? "ENCODING" : "TYPE";
    }

    private String decoded(String value, List<Parameter> parameters) {
        var charset = StandardCharsets.UTF_8;
        boolean encoded = false;
        for (var parameter : parameters) {
            encoded |= parameter.name().equals("ENCODING") && parameter.value().equalsIgnoreCase("quoted-printable");
            if (parameter.name().equals("CHARSET")) {
                try {
                    charset = Charset.forName(parameter.value());
                } catch (IllegalArgumentException unknown) {
                    losses.odd();
                }
            }
        }
        if (!encoded) {
            return value;
        }
        try {
            return new QuotedPrintableCodec(charset.name()).decode(value);
        } catch (DecoderException e) {
            losses.odd();
            return value;
        }
    }
}
