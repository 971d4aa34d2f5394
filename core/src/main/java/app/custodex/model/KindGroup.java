package app.custodex.model;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;

/** The kinds of things as people choose among them, in the order in which they are shown. */
public enum KindGroup {
    MESSAGES("messages", "Messages", ThingKind.MESSAGE, ThingKind.MAIL),
    CONVERSATIONS("conversations", "Conversations", ThingKind.CONVERSATION),
    CALLS("calls", "Calls", ThingKind.CALL),
    VOICEMAIL("voicemail", "Voicemail", ThingKind.VOICEMAIL),
    PICTURES("pictures", "Pictures", ThingKind.PICTURE, ThingKind.VIDEO),
    MUSIC("music", "Sound", ThingKind.TRACK, ThingKind.PODCAST, ThingKind.MEMO, ThingKind.RINGTONE, ThingKind.FILM),
    EVENTS("events", "Events", ThingKind.EVENT, ThingKind.TASK),
    NOTES("notes", "Notes", ThingKind.NOTE),
    WEB("web", "Web", ThingKind.BOOKMARK, ThingKind.VISIT),
    CONTACTS("contacts", "Contacts", ThingKind.CONTACT),
    BOOKS("books", "Books", ThingKind.DOCUMENT),
    APPS("apps", "Apps", ThingKind.APP, ThingKind.ALARM),
    OTHER("other", "Other", ThingKind.ALBUM, ThingKind.PLAYLIST, ThingKind.ROUTE, ThingKind.FILE);

    private final String code;
    private final String label;
    private final Set<ThingKind> kinds;

    KindGroup(String code, String label, ThingKind... kinds) {
        this.code = code;
        this.label = label;
        this.kinds = Collections.unmodifiableSet(EnumSet.copyOf(Arrays.asList(kinds)));
    }

    public static KindGroup of(ThingKind kind) {
        for (var group : values()) {
            if (group.kinds.contains(kind)) {
                return group;
            }
        }
        throw new AssertionError("every kind has its place: " + kind);
    }

    /** On the command line, in identifiers and style classes. */
    public String code() {
        return code;
    }

    public String label() {
        return label;
    }

    public Set<ThingKind> kinds() {
        return kinds;
    }

    /** The kinds of several groups, by their ordinals. */
    public static BitSet bits(Set<KindGroup> groups) {
        var bits = new BitSet();
        groups.forEach(group -> group.kinds.forEach(kind -> bits.set(kind.ordinal())));
        return bits;
    }
}
