package app.custodex.practice;

import app.custodex.drawer.PracticePhone.Tap;
import app.custodex.link.ChatApp;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.ReadinessStep;
import app.custodex.link.Withheld;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;

/** The phone's screen: what it shows, what can be tapped, and which bench it trusts. */
final class Glass {
    private final Family family;
    private final String passcode;
    private final Set<ReadinessStep> settings = EnumSet.noneOf(ReadinessStep.class);
    /** The token of each bench that was let in. */
    private final Map<String, String> trusted = new HashMap<>();

    private Optional<String> asking = Optional.empty();
    private Set<String> refused = Set.of();
    private final List<ChatGlass> chats;
    private boolean letsEveryoneIn;
    private boolean cable;
    private boolean openedByOwner;

    /** @param chats the chat apps on it */
    Glass(Family family, String passcode, List<ChatGlass> chats) {
        this.family = family;
        this.passcode = passcode;
        this.chats = List.copyOf(chats);
    }

    synchronized List<ChatApp> chats() {
        return chats.stream().map(ChatGlass::app).toList();
    }

    /** Why the phone does not give a kind, as its settings are at the moment. */
    synchronized Optional<Withheld> withheld(Kind kind) {
        return switch (kind) {
            case WEB -> family == Family.OSTREL ? Optional.of(Withheld.SEALED_ONLY) : Optional.empty();
            case APPS ->
                family == Family.PELLOW && !openedByOwner ? Optional.of(Withheld.OUT_OF_REACH) : Optional.empty();
            case KITEWIRE, BURROW ->
                chats.stream().anyMatch(chat -> chat.app().kind() == kind && chat.written())
                        ? Optional.empty()
                        : Optional.of(Withheld.NOT_WRITTEN);
            default -> Optional.empty();
        };
    }

    /** The steps that are done as a bench sees them; a new bench makes the phone ask when all else is done. */
    synchronized Set<ReadinessStep> done(String bench) {
        var done = EnumSet.noneOf(ReadinessStep.class);
        done.addAll(settings);
        if (letsEveryoneIn) {
            trusted.computeIfAbsent(bench, b -> UUID.randomUUID().toString());
        }
        if (trusted.containsKey(bench)) {
            done.add(lastStep());
        } else if (!refused.contains(bench)
                && done.containsAll(family.steps().subList(0, family.steps().size() - 1))) {
            asking = Optional.of(bench);
        }
        return done;
    }

    synchronized Optional<String> token(String bench) {
        return done(bench).containsAll(family.steps()) ? Optional.ofNullable(trusted.get(bench)) : Optional.empty();
    }

    synchronized boolean accepts(String bench, String token) {
        return token.equals(trusted.get(bench));
    }

    synchronized boolean givesFiles() {
        return settings.containsAll(family.steps().subList(0, family.steps().size() - 1));
    }

    private ReadinessStep lastStep() {
        return family.steps().getLast();
    }

    synchronized void cable(boolean in) {
        cable = in;
        if (!in) {
            asking = Optional.empty();
            refused = Set.of();
            settings.remove(ReadinessStep.CABLE_MODE);
        }
        if (letsEveryoneIn) {
            settings.addAll(family.steps());
            settings.remove(lastStep());
        }
    }

    synchronized void makeReady() {
        letsEveryoneIn = true;
        settings.addAll(family.steps());
        settings.remove(lastStep());
    }

    synchronized List<String> screen() {
        if (!settings.contains(ReadinessStep.UNLOCK)) {
            return List.of("Locked", cable ? "Cable is in" : "No cable", "Passcode " + passcode);
        }
        var lines = new ArrayList<String>();
        lines.add(cable ? "Cable is in" : "No cable");
        if (asking.isPresent()) {
            lines.add(family == Family.OSTREL ? "Trust this bench?" : "Allow this computer?");
            lines.add("It will be able to read everything on this phone.");
        } else if (family == Family.PELLOW) {
            lines.add("Maker menu: " + onOff(ReadinessStep.MAKER_MENU));
            lines.add("Cable access: " + onOff(ReadinessStep.CABLE_ACCESS));
            lines.add("Cable mode: " + (settings.contains(ReadinessStep.CABLE_MODE) ? "Files" : "Charge only"));
        } else {
            lines.add("Home");
        }
        chats.forEach(chat -> lines.add(chat.line()));
        return lines;
    }

    private String onOff(ReadinessStep step) {
        return settings.contains(step) ? "on" : "off";
    }

    synchronized List<Tap> taps() {
        if (!settings.contains(ReadinessStep.UNLOCK)) {
            return List.of(new Tap("unlock", "Enter passcode " + passcode));
        }
        var taps = new ArrayList<Tap>();
        if (asking.isPresent()) {
            taps.add(new Tap("accept", family == Family.OSTREL ? "Trust" : "Allow"));
            taps.add(new Tap("refuse", "Not now"));
        }
        if (family == Family.PELLOW) {
            if (!settings.contains(ReadinessStep.MAKER_MENU)) {
                taps.add(new Tap("maker-menu", "Hold the build line for five seconds"));
            } else if (!settings.contains(ReadinessStep.CABLE_ACCESS)) {
                taps.add(new Tap("cable-access", "Turn on cable access"));
            } else if (cable && !settings.contains(ReadinessStep.CABLE_MODE)) {
                taps.add(new Tap("cable-mode", "Choose cable mode Files"));
            }
        }
        if (family == Family.PELLOW && settings.contains(ReadinessStep.CABLE_ACCESS) && !openedByOwner) {
            taps.add(new Tap("open-phone", "Owner opens the phone for app data"));
        }
        chats.forEach(chat -> taps.addAll(chat.taps()));
        taps.add(new Tap("lock", "Lock the phone"));
        return taps;
    }

    /** @return the chat app that is to write its copy now */
    synchronized Optional<Kind> tap(Tap tap) {
        if (!taps().contains(tap)) {
            return Optional.empty(); // the screen changed under the finger
        }
        for (var chat : chats) {
            if (chat.taps().contains(tap)) {
                return chat.tap(tap) ? Optional.of(chat.app().kind()) : Optional.empty();
            }
        }
        switch (tap.id()) {
            case "unlock" -> settings.add(ReadinessStep.UNLOCK);
            case "lock" -> settings.remove(ReadinessStep.UNLOCK);
            case "maker-menu" -> settings.add(ReadinessStep.MAKER_MENU);
            case "cable-access" -> settings.add(ReadinessStep.CABLE_ACCESS);
            case "open-phone" -> openedByOwner = true;
            case "cable-mode" -> settings.add(ReadinessStep.CABLE_MODE);
            case "accept" -> {
                asking.ifPresent(bench -> trusted.put(bench, UUID.randomUUID().toString()));
                asking = Optional.empty();
            }
            case "refuse" -> {
                refused = asking.map(Set::of).orElse(Set.of());
                asking = Optional.empty();
            }
            default -> throw new IllegalArgumentException(tap.id());
        }
        return Optional.empty();
    }
}
