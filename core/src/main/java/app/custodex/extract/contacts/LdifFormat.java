package app.custodex.extract.contacts;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Split;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Contacts as entries of a directory (RFC 2849) of the class inetOrgPerson (RFC 2798): lines of at most 76 octets, and in Base64 what is not
 * plain ASCII.
 */
public final class LdifFormat implements Format {
    private static final int LINE = 76;

    @Override
    public String code() {
        return "ldif";
    }

    @Override
    public String label() {
        return "LDIF, for address directories (RFC 2849)";
    }

    @Override
    public String leavesOut() {
        return "Leaves out websites, chats, days, relations and groups, and the labels of numbers";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.CONTACTS);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return Split.choices(group);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, LdifFormat::entries);
    }

    private static void entries(Batch batch, OutFolder out) throws IOException {
        out.text(batch.title(), ".ldif", text -> {
            text.write("version: 1\n");
            for (var entry : batch.each(thing -> entry((Contact) thing, batch))) {
                text.write(entry);
            }
        });
    }

    private static String entry(Contact contact, Batch batch) {
        var entry = new StringBuilder("\n");
        var name = Clean.line(contact.title());
        var identifier = contact.uid().isEmpty() ? contact.id().text() : contact.uid();
        line(entry, "dn", "uid=" + escaped(Clean.line(identifier)) + ",ou=contacts");
        line(entry, "objectClass", "inetOrgPerson");
        line(entry, "uid", identifier);
        line(entry, "cn", name);
        // The class requires a family name (RFC 4519, section 2.32).
        line(
                entry,
                "sn",
                contact.name().family().isBlank() ? name : contact.name().family());
        line(entry, "givenName", contact.name().given());
        line(entry, "o", contact.organisation().name());
        line(entry, "ou", contact.organisation().department());
        line(entry, "title", contact.organisation().title());
        contact.mails().forEach(mail -> line(entry, "mail", mail.value()));
        contact.phones().forEach(phone -> line(entry, attribute(phone.label()), phone.written()));
        contact.addresses().forEach(address -> line(entry, "postalAddress", postal(address)));
        contact.notes().forEach(note -> line(entry, "description", note));
        photo(entry, contact, batch);
        leftOut(contact, batch);
        return entry.toString();
    }

    private static void leftOut(Contact contact, Batch batch) {
        contact.webs().forEach(any -> batch.leftOut("websites"));
        contact.chats().forEach(any -> batch.leftOut("chat addresses"));
        contact.birthday().ifPresent(any -> batch.leftOut("birthdays"));
        contact.anniversary().ifPresent(any -> batch.leftOut("anniversaries"));
        contact.related().forEach(any -> batch.leftOut("relations"));
        contact.groups().forEach(any -> batch.leftOut("groups"));
        contact.nicknames().forEach(any -> batch.leftOut("nicknames"));
    }

    private static String attribute(String label) {
        var low = label.toLowerCase(Locale.ROOT);
        if (low.contains("fax")) {
            return "facsimileTelephoneNumber";
        }
        if (low.contains("pager")) {
            return "pager";
        }
        return switch (low) {
            case "mobile", "cell" -> "mobile";
            case "home" -> "homePhone";
            default -> "telephoneNumber";
        };
    }

    /** RFC 4517, section 3.3.28: lines are joined by "$", and a "$" of their own becomes "\24". */
    private static String postal(Contact.Address address) {
        return String.join(
                "$",
                address.lines().stream()
                        .map(line -> Clean.line(line).replace("\\", "\\5C").replace("$", "\\24"))
                        .toList());
    }

    /** RFC 4514, section 2.4. */
    private static String escaped(String value) {
        var escaped = value.replaceAll("[\\\\,+\"<>;=]", "\\\\$0");
        return escaped.startsWith("#") || escaped.startsWith(" ") ? "\\" + escaped : escaped;
    }

    private static void photo(StringBuilder entry, Contact contact, Batch batch) {
        ContactPhotos.of(contact, batch).ifPresent(photo -> {
            if (PictureFormat.of(photo)
                    .filter(type -> type == PictureFormat.JPEG)
                    .isPresent()) {
                fold(entry, "jpegPhoto:: " + Base64.getEncoder().encodeToString(photo));
            } else {
                batch.leftOut("photos that are no JPEG");
            }
        });
    }

    private static void line(StringBuilder entry, String attribute, String value) {
        var clean = Clean.text(value);
        if (!clean.isEmpty()) {
            fold(
                    entry,
                    isSafe(clean)
                            ? attribute + ": " + clean
                            : attribute + ":: "
                                    + Base64.getEncoder().encodeToString(clean.getBytes(StandardCharsets.UTF_8)));
        }
    }

    /** SAFE-STRING of RFC 2849, and no space at its end (note 8). */
    private static boolean isSafe(String value) {
        char first = value.charAt(0);
        return first != ' '
                && first != ':'
                && first != '<'
                && !value.endsWith(" ")
                && value.chars().allMatch(c -> c < 0x80 && c != '\n' && c != '\r' && c != 0);
    }

    private static void fold(StringBuilder entry, String line) {
        int at = Math.min(LINE, line.length());
        entry.append(line, 0, at).append('\n');
        while (at < line.length()) {
            int until = Math.min(at + LINE - 1, line.length());
            entry.append(' ').append(line, at, until).append('\n');
            at = until;
        }
    }
}
