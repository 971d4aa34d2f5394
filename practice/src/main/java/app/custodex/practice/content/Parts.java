package app.custodex.practice.content;

import app.custodex.practice.island.Talk.Clip;
import app.custodex.practice.island.Talk.Picture;
import app.custodex.practice.island.Talk.Said;
import app.custodex.practice.island.Talk.Voice;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The files that hang on messages. */
final class Parts {
    private Parts() {}

    static String name(Clip clip) {
        return switch (clip) {
            case Picture picture -> picture.motif().name().toLowerCase(Locale.ROOT) + ".jpg";
            case Voice voice -> "voice-" + voice.number() + ".opus";
        };
    }

    static String type(Clip clip) {
        return clip instanceof Picture ? "image/jpeg" : "audio/ogg";
    }

    /** One in nine was erased by its owner to make room. */
    private static boolean kept(int message) {
        return message % 9 != 0;
    }

    /** Where the file of a message lies. */
    interface Place {
        Path of(int message, Said said);
    }

    /** The files of all messages that still have them. */
    static List<Roll.Drawing> of(List<Said> all, Place place) {
        var parts = new ArrayList<Roll.Drawing>();
        for (int i = 0; i < all.size(); i++) {
            var said = all.get(i);
            if (said.clip().isPresent() && kept(i)) {
                var clip = said.clip().get();
                var file = place.of(i, said);
                parts.add(new Roll.Drawing(file, (photographer, to) -> put(clip, said, to, photographer)));
            }
        }
        return parts;
    }

    private static void put(Clip clip, Said said, Path file, Photographer photographer) throws IOException {
        switch (clip) {
            case Picture(var motif, var seed) -> {
                Files.write(file, photographer.sent(motif, seed, said.at()));
                Clips.stamp(file, said.at());
            }
            case Voice voice -> Clips.put(name(voice), file, said.at());
        }
    }
}
