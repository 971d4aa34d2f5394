package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A second reader, written from RFC 6350 alone and sharing nothing with the library that writes: content lines (§3.2,
 * §3.3), groups, parameters and the escapes of text values (§3.4). It accepts nothing that the grammar does not.
 */
final class StrictVcard {
    private static final Pattern LINE = Pattern.compile(
            "(?:([A-Za-z0-9-]+)\\.)?([A-Za-z0-9-]+)((?:;[A-Za-z0-9-]+=(?:\"[^\"]*\"|[^\";:,\\p{Cntrl}]+)(?:,(?:\"[^\"]*\"|[^\";:,\\p{Cntrl}]+))*)*):(.*)",
            Pattern.DOTALL);

    record Property(String group, String name, String parameters, String raw) {
        String text() {
            return unescape(raw);
        }

        List<String> parts(char separator) {
            var parts = new ArrayList<String>();
            var part = new StringBuilder();
            for (int i = 0; i < raw.length(); i++) {
                char c = raw.charAt(i);
                if (c == '\\') {
                    part.append(c).append(raw.charAt(++i));
                } else if (c == separator) {
                    parts.add(unescape(part.toString()));
                    part.setLength(0);
                } else {
                    part.append(c);
                }
            }
            parts.add(unescape(part.toString()));
            return parts;
        }

        private static String unescape(String raw) {
            var text = new StringBuilder();
            for (int i = 0; i < raw.length(); i++) {
                char c = raw.charAt(i);
                if (c == '\\' && i + 1 < raw.length()) {
                    char next = raw.charAt(++i);
                    assertTrue("\\,;nN".indexOf(next) >= 0, "unknown escape \\" + next);
                    text.append(next == 'n' || next == 'N' ? '\n' : next);
                } else {
                    text.append(c);
                }
            }
            return text.toString();
        }
    }

    record Card(List<Property> properties) {
        List<Property> all(String name) {
            return properties.stream()
                    .filter(p -> p.name().equalsIgnoreCase(name))
                    .toList();
        }

        Property one(String name) {
            var all = all(name);
            assertEquals(1, all.size(), name);
            return all.getFirst();
        }

        /** The owner's own label of a property, by its group. */
        String label(Property property) {
            return properties.stream()
                    .filter(p -> p.name().equals("X-LABEL")
                            && !p.group().isEmpty()
                            && p.group().equals(property.group()))
                    .map(Property::text)
                    .findFirst()
                    .orElse("");
        }
    }

    private StrictVcard() {}

    static List<Card> read(String file, String version) {
        assertTrue(file.endsWith("\r\n"), "the last line has no end");
        var physical = file.split("\r\n");
        for (var line : physical) {
            assertTrue(line.getBytes(StandardCharsets.UTF_8).length <= 75, "longer than 75 octets: " + line);
            assertTrue(line.indexOf('\n') < 0 && line.indexOf('\r') < 0, "a bare line break");
        }
        var logical = new ArrayList<String>();
        for (var line : physical) {
            if (line.startsWith(" ") || line.startsWith("\t")) {
                logical.set(logical.size() - 1, logical.getLast() + line.substring(1));
            } else {
                logical.add(line);
            }
        }
        var cards = new ArrayList<Card>();
        List<Property> open = List.of();
        boolean inCard = false;
        for (var line : logical) {
            var match = LINE.matcher(line);
            assertTrue(match.matches(), "no content line: " + line);
            var group = match.group(1) == null ? "" : match.group(1);
            var property = new Property(group, match.group(2), match.group(3), match.group(4));
            if (property.name().equals("BEGIN")) {
                open = new ArrayList<>();
                inCard = true;
            } else if (property.name().equals("END")) {
                assertEquals("VERSION", open.getFirst().name(), "VERSION comes first");
                assertEquals(version, open.getFirst().raw());
                cards.add(new Card(List.copyOf(open)));
                inCard = false;
            } else {
                assertTrue(inCard, "outside of a card: " + line);
                open.add(property);
            }
        }
        assertTrue(!inCard, "the last card does not end");
        return cards;
    }
}
