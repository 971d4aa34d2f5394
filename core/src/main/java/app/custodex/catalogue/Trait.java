package app.custodex.catalogue;

import app.custodex.model.App;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Note;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.Voicemail;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** Something to which a list is narrowed: that a call was missed, the calendar that an event is in. */
public record Trait(Aspect aspect, String value) implements Comparable<Trait> {
    /** What is told of a thing. */
    public enum Aspect {
        KIND("Kind", false),
        ACCOUNT("Account or app", true),
        SERVICE("Service", false),
        DIRECTION("Direction", false),
        STATE("State", false),
        WITH("With", false),
        CALENDAR("Calendar", true),
        FOLDER("Folder", true),
        GROUP("Group", true),
        GENRE("Genre", false),
        CAMERA("Camera", false);

        private final String label;
        private final boolean isPrivate;

        Aspect(String label, boolean isPrivate) {
            this.label = label;
            this.isPrivate = isPrivate;
        }

        /** The words shown to people. */
        public String label() {
            return label;
        }

        /** Whether its values are words of the phone's owner. */
        public boolean isPrivate() {
            return isPrivate;
        }
    }

    private static final int MOST_CHARACTERS = 80;
    private static final Pattern CONTROL = Pattern.compile("\\p{Cc}+");

    @Override
    public int compareTo(Trait other) {
        int byAspect = aspect.compareTo(other.aspect);
        return byAspect != 0 ? byAspect : value.compareTo(other.value);
    }

    /** All that is told of a thing. */
    static Set<Trait> of(Thing thing) {
        var traits = new Collector();
        traits.add(Aspect.KIND, thing.kind().label());
        traits.add(Aspect.ACCOUNT, thing.account());
        switch (thing) {
            case Message message -> traits.message(message);
            case Conversation conversation -> {
                traits.add(Aspect.SERVICE, conversation.service());
                traits.add(Aspect.WITH, conversation.group() ? "Several people" : "One person");
            }
            case Call call -> traits.call(call);
            case Voicemail voicemail -> traits.add(Aspect.STATE, voicemail.heard() ? "Listened to" : "Not listened to");
            case Event event -> {
                traits.add(Aspect.CALENDAR, event.calendar());
                traits.add(Aspect.WITH, "Repeats", !event.rule().isEmpty());
                traits.add(Aspect.WITH, "Reminder", !event.alarms().isEmpty());
                traits.add(Aspect.WITH, "Other people", !event.people().isEmpty());
            }
            case Task task -> {
                traits.add(Aspect.CALENDAR, task.calendar());
                traits.add(Aspect.STATE, task.done().isPresent() ? "Done" : "To do");
            }
            case Note note -> {
                traits.add(Aspect.FOLDER, note.folder());
                traits.attachments(note);
            }
            case Bookmark bookmark -> {
                traits.add(Aspect.FOLDER, bookmark.folder());
                traits.add(Aspect.STATE, "Kept for later", bookmark.later());
            }
            case Contact contact -> traits.contact(contact);
            case App app -> traits.add(Aspect.STATE, data(app.data()));
            case MediaFile file -> traits.file(file);
            default -> {}
        }
        return traits.all;
    }

    private static String data(App.Data data) {
        return switch (data) {
            case NONE -> "Keeps no data";
            case HERE -> "Data came along";
            case NOT_HERE -> "Data did not come along";
        };
    }

    private static final class Collector {
        private final Set<Trait> all = new LinkedHashSet<>();

        void add(Aspect aspect, String value) {
            var line = (hasControl(value) ? CONTROL.matcher(value).replaceAll(" ") : value).strip();
            int end = line.length() <= MOST_CHARACTERS
                    ? line.length()
                    : line.offsetByCodePoints(0, Math.min(line.codePointCount(0, line.length()), MOST_CHARACTERS));
            add(aspect, line.substring(0, end), end > 0);
        }

        private static boolean hasControl(String text) {
            for (int i = 0; i < text.length(); i++) {
                if (Character.isISOControl(text.charAt(i))) {
                    return true;
                }
            }
            return false;
        }

        void add(Aspect aspect, String value, boolean holds) {
            if (holds) {
                all.add(new Trait(aspect, value));
            }
        }

        void message(Message message) {
            add(Aspect.SERVICE, message.service());
            add(Aspect.DIRECTION, message.sent() ? "Sent" : "Received");
            if (message.sent()) {
                add(
                        Aspect.STATE,
                        switch (message.state()) {
                            case UNKNOWN -> "";
                            case FAILED -> "Not sent";
                            case SENT -> "Sent";
                            case DELIVERED -> "Delivered";
                            case READ -> "Read";
                        });
            }
            add(Aspect.STATE, "Edited", message.edited().isPresent());
            add(Aspect.STATE, "Taken back", message.deleted());
            add(Aspect.WITH, "Answer to another", message.replyTo().isPresent());
            add(Aspect.WITH, "Reactions", !message.reactions().isEmpty());
            add(
                    Aspect.WITH,
                    "Link",
                    message.text().contains("http://") || message.text().contains("https://"));
            attachments(message);
        }

        void attachments(Thing thing) {
            for (var attachment : thing.attachments()) {
                var type = attachment.type().toLowerCase(Locale.ROOT);
                add(
                        Aspect.WITH,
                        type.startsWith("image/")
                                ? "Picture"
                                : type.startsWith("video/") ? "Video" : type.startsWith("audio/") ? "Sound" : "File");
            }
        }

        void call(Call call) {
            add(
                    Aspect.STATE,
                    switch (call.outcome()) {
                        case MADE -> "Made";
                        case TAKEN -> "Taken";
                        case MISSED -> "Missed";
                        case DECLINED -> "Declined";
                    });
            add(
                    Aspect.SERVICE,
                    switch (call.medium()) {
                        case VOICE -> "Telephone";
                        case VIDEO -> "Video";
                        case APP -> "In an app";
                    });
        }

        void contact(Contact contact) {
            contact.groups().forEach(group -> add(Aspect.GROUP, group));
            add(Aspect.WITH, "Number", !contact.phones().isEmpty());
            add(Aspect.WITH, "Mail address", !contact.mails().isEmpty());
            add(Aspect.WITH, "Picture", contact.hasPhoto());
        }

        void file(MediaFile file) {
            add(Aspect.WITH, "Place", file.place().isPresent());
            for (var fact : file.facts()) {
                switch (fact.name()) {
                    case "Genre" -> add(Aspect.GENRE, fact.value());
                    case "Camera" -> add(Aspect.CAMERA, fact.value());
                    case "Where" -> add(Aspect.STATE, fact.value());
                    default -> {}
                }
            }
        }
    }
}
