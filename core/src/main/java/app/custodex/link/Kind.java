package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;

/** What a file on a phone is to its owner. Every file has exactly one kind. */
public enum Kind {
    CONTACTS("contacts", "Contacts"),
    CONVERSATIONS("conversations", "Conversations"),
    KITEWIRE("kitewire", "Kitewire conversations"),
    BURROW("burrow", "Burrow conversations"),
    CALLS("calls", "Calls"),
    VOICEMAIL("voicemail", "Voicemail"),
    CALENDARS("calendars", "Calendars"),
    NOTES("notes", "Notes"),
    PHOTOS("photos", "Photos"),
    VIDEOS("videos", "Videos"),
    MUSIC("music", "Music and ringtones"),
    MEMOS("memos", "Voice memos"),
    BOOKS("books", "Books and documents"),
    WEB("web", "Bookmarks and web history"),
    APPS("apps", "Apps and their data"),
    OTHER("other", "Other files");

    private final String code;
    private final String label;

    Kind(String code, String label) {
        this.code = code;
        this.label = label;
    }

    /** The word used in manifests, on the link and on the command line. */
    @JsonValue
    public String code() {
        return code;
    }

    /** The words shown to people. */
    public String label() {
        return label;
    }
}
