package app.custodex.desktop.ui;

import java.util.Optional;
import java.util.regex.Pattern;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.scene.Node;

/**
 * The curtain as the screen shows it: private words and pictures that are made here can't be seen while it is down. It follows what the
 * core decides. Interface thread only.
 */
public final class Veil {
    /** What is read aloud in place of private words. */
    public static final String SAID = "behind the curtain";

    /** Always the same, so that it says nothing about what is behind it. */
    static final String DRAWN = "• • • • •";

    /** A path or file name of a phone, as opposed to one on this computer or an address. */
    private static final Pattern PHONE_PATH = Pattern.compile("(?!/|[A-Za-z]:|[a-z]+://)(.*/.*|.*\\.[A-Za-z0-9]{1,5})");

    private final ReadOnlyBooleanWrapper down = new ReadOnlyBooleanWrapper(true);

    public ReadOnlyBooleanProperty down() {
        return down.getReadOnlyProperty();
    }

    public boolean isDown() {
        return down.get();
    }

    public void set(boolean nowDown) {
        down.set(nowDown);
    }

    /** Private text on one line. */
    public UserText line(String text, String... styleClasses) {
        return UserText.made(true, Optional.of(this), text, styleClasses);
    }

    /** Private text that wraps. */
    public UserText paragraph(String text, String... styleClasses) {
        return UserText.made(false, Optional.of(this), text, styleClasses);
    }

    /** Private words that are read aloud, or stand in a field that shows no others. */
    public String words(String text) {
        return isDown() && !text.isBlank() ? SAID : text;
    }

    /** What a problem happened to: the name of an item of a phone is private, that of a file of this computer is not. */
    public String subject(String subject) {
        return PHONE_PATH.matcher(subject).matches() ? words(subject) : subject;
    }

    /** A private picture. */
    public <N extends Node> N picture(N picture) {
        picture.visibleProperty().bind(down.not());
        return picture;
    }
}
