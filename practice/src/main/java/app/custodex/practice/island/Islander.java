package app.custodex.practice.island;

import static app.custodex.practice.island.Circle.CHOIR;
import static app.custodex.practice.island.Circle.FARM;
import static app.custodex.practice.island.Circle.FERRY;
import static app.custodex.practice.island.Circle.KIN;
import static app.custodex.practice.island.Circle.SCHOOL;
import static app.custodex.practice.island.Circle.SEALS;

import java.time.LocalDateTime;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Somebody who lives on the island and appears on the phones of the others. All are invented; numbers are of the range that Ofcom
 * keeps for drama (07700 900000 to 900999).
 */
public enum Islander {
    HALVARD("Halvard", "Rook", "1941-11-14", "Lighthouse Guides", "keeper", KIN, CHOIR),
    MAREN("Maren", "Quill", "1968-02-09", "Skerrow Choir", "choir leader", CHOIR, SCHOOL),
    IVO("Ivo", "Kelp", "1977-06-30", "Seaweed Farm Nordvoe", "farmer", FARM, FERRY),
    JORUN("Jorun", "Tasch", "1991-09-17", "Skerrow Ferry Terminal", "deckhand", FERRY, CHOIR),
    FENNA("Fenna", "Rook", "1989-04-03", "Lighthouse Guides", "guide", KIN, CHOIR, SEALS),
    NOOR("نور", "سعيد", "1982-12-21", "School Kitchen", "school cook", SCHOOL, CHOIR, FARM),
    EILIF("Eilif", "Brekke", "1959-01-28", "Harbour Office", "harbour master", FERRY),
    SUNNIVA("Sunniva", "Holm", "1985-07-11", "Island School", "teacher", SCHOOL, CHOIR, SEALS),
    CORMAC("Cormac", "Ó Dálach", "1966-03-15", "Slipway & Sons", "boat builder", CHOIR, FARM),
    TOVE("Tove", "Marrow", "1974-10-05", "Post and Shop", "", FERRY),
    KAITO("海斗", "浜名", "1993-08-23", "Sea Station", "", SEALS),
    AGLAYA("Аглая", "Прибоева", "1971-05-19", "Island Radio", "operator", CHOIR),
    BRANN("Brann", "Rook", "2009-10-30", "", "", KIN, SEALS, SCHOOL),
    DAGNY("Dagny", "Voe", "1949-08-02", "Bakery", "baker", KIN, SCHOOL),
    NEFELI("Νεφέλη", "Αλμύρα", "1990-01-06", "Terminal Café", "", FERRY, CHOIR);

    /** When the voicemail that is kept was spoken; he said nothing any more afterwards. */
    static final LocalDateTime LAST_VOICEMAIL = LocalDateTime.of(2025, 11, 3, 18, 12);

    private final String given;
    private final String family;
    private final String birthday;
    private final String work;
    private final String title;
    private final Set<Circle> circles = EnumSet.noneOf(Circle.class);

    Islander(String given, String family, String birthday, String work, String title, Circle... circles) {
        this.given = given;
        this.family = family;
        this.birthday = birthday;
        this.work = work;
        this.title = title;
        this.circles.addAll(Arrays.asList(circles));
    }

    /** In the script of its owner. */
    public String given() {
        return given;
    }

    public String family() {
        return family;
    }

    public String fullName() {
        return given + " " + family;
    }

    /** How the name is spoken, for names that are not in Latin letters; otherwise the name itself. */
    public String spokenGiven() {
        return switch (this) {
            case KAITO -> "かいと";
            default -> latin();
        };
    }

    public String spokenFamily() {
        return switch (this) {
            case NOOR -> "Said";
            case KAITO -> "はまな";
            case AGLAYA -> "Priboeva";
            case NEFELI -> "Almyra";
            default -> family;
        };
    }

    /** The given name in Latin letters. */
    public String latin() {
        return name().charAt(0) + name().substring(1).toLowerCase(Locale.ROOT);
    }

    public boolean otherScript() {
        return given.charAt(0) > 0x24F;
    }

    public String birthday() {
        return birthday;
    }

    public String work() {
        return work;
    }

    public String title() {
        return title;
    }

    /** In the form of ITU-T E.164. */
    public String number() {
        return "+447700900%03d".formatted(112 + ordinal() * 37);
    }

    public String mail() {
        return name().toLowerCase(Locale.ROOT) + "@example.org";
    }

    /** In a chat app. */
    public String handle() {
        return name().toLowerCase(Locale.ROOT) + ".skerrow";
    }

    Set<Circle> circles() {
        return circles;
    }

    Set<Circle> sharedWith(Islander other) {
        var shared = EnumSet.copyOf(circles);
        shared.retainAll(other.circles);
        return shared;
    }

    /** Whether they could have written or rung then. */
    boolean reachable(LocalDateTime at) {
        return this == HALVARD ? !at.isAfter(LAST_VOICEMAIL) : this != KAITO || at.getYear() > 2023;
    }

    static Islander called(String latin) {
        return List.of(values()).stream()
                .filter(islander -> islander.latin().equals(latin))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("nobody is called " + latin));
    }
}
