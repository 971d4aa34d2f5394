package app.custodex.practice;

import app.custodex.drawer.PracticePhone.Tap;
import app.custodex.link.ChatApp;
import app.custodex.link.ChatStep;
import app.custodex.link.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** One chat app's page of settings: where it keeps its copy, and whether it has written one. */
final class ChatGlass {
    private final Kind kind;
    private final Set<ChatStep> done = EnumSet.noneOf(ChatStep.class);

    /** @param written whether a copy lies on the phone from earlier */
    ChatGlass(Kind kind, boolean written) {
        this.kind = kind;
        if (written) {
            done.addAll(List.of(ChatStep.COPY_HERE, ChatStep.WRITE_COPY));
        }
    }

    private String name() {
        return kind == Kind.BURROW ? "Burrow" : "Kitewire";
    }

    private String id(String what) {
        return name().toLowerCase(Locale.ROOT) + "-" + what;
    }

    ChatApp app() {
        return new ChatApp(kind, done);
    }

    boolean written() {
        return done.contains(ChatStep.WRITE_COPY);
    }

    String line() {
        return name() + " copies: " + (done.contains(ChatStep.COPY_HERE) ? "this phone" : "remote account")
                + (written() ? ", written" : "");
    }

    List<Tap> taps() {
        var taps = new ArrayList<Tap>();
        if (!done.contains(ChatStep.COPY_HERE)) {
            taps.add(new Tap(id("here"), name() + ": keep copies here"));
        } else if (!written()) {
            taps.add(new Tap(id("write"), name() + ": write a copy now"));
        }
        return taps;
    }

    /** @return whether the app is to write its copy now */
    boolean tap(Tap tap) {
        if (tap.id().equals(id("here"))) {
            done.add(ChatStep.COPY_HERE);
        }
        if (tap.id().equals(id("write"))) {
            done.add(ChatStep.WRITE_COPY);
            return true;
        }
        return false;
    }
}
