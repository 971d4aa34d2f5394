package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonValue;

/** One movement of the hand that a phone may wait for. */
public enum ReadinessStep {
    UNLOCK("unlock", "Unlocked", "Enter the passcode on the phone", "Enter its passcode", "needs its passcode"),
    TRUST(
            "trust",
            "Trusts this bench",
            "Tap Trust on the phone when it asks about this bench",
            "Tap Trust on the phone",
            "asks whether to trust this bench"),
    MAKER_MENU(
            "maker-menu",
            "Maker menu is open",
            "On the phone: Settings, About, hold the build line for five seconds",
            "Open its maker menu",
            "needs its maker menu opened"),
    CABLE_ACCESS(
            "cable-access",
            "Cable access is on",
            "In the maker menu: turn on cable access",
            "Turn on cable access",
            "needs cable access turned on"),
    CABLE_MODE(
            "cable-mode",
            "Cable mode is Files",
            "Pull down the phone's cable notice and choose Files",
            "Choose cable mode Files",
            "needs cable mode Files"),
    ALLOW_COMPUTER(
            "allow-computer",
            "Allows this computer",
            "Tap Allow on the phone when it asks about this computer",
            "Tap Allow on the phone",
            "asks whether to allow this computer"),
    REACH(
            "reach",
            "Can be reached",
            "Plug in the drive or the card, or connect to the network",
            "Plug it in",
            "can't be reached"),
    CERTIFICATE(
            "certificate",
            "Its certificate is trusted",
            "Compare the certificate's fingerprint with the one that its owner reads out, and trust it",
            "Trust its certificate",
            "shows a certificate that nobody here has trusted yet"),
    SIGN_IN(
            "sign-in",
            "Signed in",
            "Sign in with the customer's account",
            "Sign in to the account",
            "asks who is there"),
    CODE(
            "code",
            "One-time code accepted",
            "Enter the one-time code that was sent to the customer",
            "Enter the one-time code",
            "waits for the one-time code"),
    CHOOSE_COPY(
            "choose-copy",
            "Copy chosen",
            "Choose which of its copies to fetch",
            "Choose a copy",
            "holds several copies"),
    PASSPHRASE(
            "passphrase",
            "Passphrase accepted",
            "Enter the passphrase that the customer gave the maker's program",
            "Enter its passphrase",
            "waits for its passphrase");

    private final String code;
    private final String done;
    private final String instruction;
    private final String brief;
    private final String waiting;

    ReadinessStep(String code, String done, String instruction, String brief, String waiting) {
        this.code = code;
        this.done = done;
        this.instruction = instruction;
        this.brief = brief;
        this.waiting = waiting;
    }

    @JsonValue
    public String code() {
        return code;
    }

    /** How the step reads once it is done. */
    public String done() {
        return done;
    }

    /** What the technician does next. */
    public String instruction() {
        return instruction;
    }

    /** The same in few words, where there is little room. */
    public String brief() {
        return brief;
    }

    /** "The phone …": what it waits for, to be put behind the phone's name. */
    public String waiting() {
        return waiting;
    }
}
