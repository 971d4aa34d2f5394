package app.custodex.model;

/** What sort of thing something in a phone is. The order is the one in which kinds are listed. */
public enum ThingKind {
    CONTACT("contact", "Contacts"),
    CONVERSATION("conversation", "Conversations"),
    MESSAGE("message", "Messages"),
    MAIL("mail", "Mails"),
    CALL("call", "Calls"),
    VOICEMAIL("voicemail", "Voicemail"),
    EVENT("event", "Events"),
    TASK("task", "Tasks"),
    NOTE("note", "Notes"),
    BOOKMARK("bookmark", "Bookmarks"),
    VISIT("visit", "Page visits"),
    PICTURE("picture", "Pictures"),
    VIDEO("video", "Videos"),
    ALBUM("album", "Albums"),
    TRACK("track", "Tracks"),
    PLAYLIST("playlist", "Playlists"),
    PODCAST("podcast", "Podcasts"),
    FILM("film", "Films and series"),
    MEMO("memo", "Voice memos"),
    RINGTONE("ringtone", "Ringtones"),
    DOCUMENT("document", "Books and documents"),
    ROUTE("route", "Routes"),
    ALARM("alarm", "Alarms"),
    APP("app", "Apps"),
    FILE("file", "Other files");

    private final String code;
    private final String label;

    ThingKind(String code, String label) {
        this.code = code;
        this.label = label;
    }

    /** The word used on the command line and in what is exchanged. */
    public String code() {
        return code;
    }

    /** The words shown to people. */
    public String label() {
        return label;
    }
}
