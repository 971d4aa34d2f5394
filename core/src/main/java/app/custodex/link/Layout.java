package app.custodex.link;

import java.util.List;
import java.util.Set;

/** Where each family keeps what: the folder decides the kind, and among media the ending. */
public final class Layout {
    /** Ostrel keeps people in this SQLite database. */
    public static final PhonePath OSTREL_PEOPLE = new PhonePath("store/people/people.db");

    private static final Set<String> VIDEO = Set.of(".mp4", ".m4v", ".webm", ".mkv");

    /** Where a chat app writes its local copy. */
    public static PhonePath chatCopies(Family family, Kind app) {
        return (family == Family.OSTREL ? OSTREL : PELLOW)
                .stream()
                        .filter(rule -> rule.kind() == app)
                        .map(Rule::folder)
                        .findFirst()
                        .orElseThrow();
    }

    private record Rule(PhonePath folder, Kind kind) {}

    private static final List<Rule> OSTREL = List.of(
            rule("store/people", Kind.CONTACTS),
            rule("store/messages", Kind.CONVERSATIONS),
            rule("store/calls", Kind.CALLS),
            rule("store/voicemail", Kind.VOICEMAIL),
            rule("store/calendar", Kind.CALENDARS),
            rule("store/notes", Kind.NOTES),
            rule("store/web", Kind.WEB),
            rule("store/roll", Kind.PHOTOS),
            rule("store/sound", Kind.MUSIC),
            rule("roll", Kind.PHOTOS),
            rule("films", Kind.VIDEOS),
            rule("sound/podcasts", Kind.MUSIC),
            rule("sound/music", Kind.MUSIC),
            rule("sound/ring", Kind.MUSIC),
            rule("sound/memos", Kind.MEMOS),
            rule("books", Kind.BOOKS),
            rule("apps/kitewire", Kind.KITEWIRE),
            rule("apps/kitewire-work", Kind.KITEWIRE),
            rule("apps/burrow", Kind.BURROW),
            rule("apps", Kind.APPS));

    private static final List<Rule> PELLOW = List.of(
            rule("Shared/People", Kind.CONTACTS),
            rule("Shared/Talk", Kind.CONVERSATIONS),
            rule("Shared/Mailbox calls", Kind.VOICEMAIL),
            rule("Shared/Calendars", Kind.CALENDARS),
            rule("Shared/Notes", Kind.NOTES),
            rule("Shared/Web", Kind.WEB),
            rule("Pictures", Kind.PHOTOS),
            rule("Films", Kind.VIDEOS),
            rule("Music", Kind.MUSIC),
            rule("Voice notes", Kind.MEMOS),
            rule("Documents", Kind.BOOKS),
            rule("Shared/Kitewire", Kind.KITEWIRE),
            rule("Shared/Kitewire Work", Kind.KITEWIRE),
            rule("Shared/Burrow", Kind.BURROW),
            rule("App data", Kind.APPS));

    private Layout() {}

    private static Rule rule(String folder, Kind kind) {
        return new Rule(new PhonePath(folder), kind);
    }

    public static Kind kindOf(Family family, PhonePath file) {
        var rules = switch (family) {
            case OSTREL -> OSTREL;
            case PELLOW -> PELLOW;
            case FOLDER, ARCHIVE, WEBDAV, LOFT, CRATE -> List.<Rule>of();
        };
        if (rules.isEmpty()) {
            return Recognition.byName(file);
        }
        for (var rule : rules) {
            if (file.in(rule.folder())) {
                return rule.kind() == Kind.PHOTOS && VIDEO.contains(file.ending()) ? Kind.VIDEOS : rule.kind();
            }
        }
        return Kind.OTHER;
    }
}
