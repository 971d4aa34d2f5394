package app.custodex.practice.content;

import app.custodex.base.Disk;
import app.custodex.practice.island.Talk.Clip;
import app.custodex.practice.island.Talk.Picture;
import app.custodex.practice.island.Talk.Said;
import app.custodex.practice.island.Talk.Voice;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;

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

    /** Writes the files of all messages, on all processors. */
    static void put(List<Said> all, Place place, Photographer photographer) throws IOException {
        try {
            IntStream.range(0, all.size()).parallel().forEach(i -> {
                var said = all.get(i);
                if (said.clip().isPresent() && kept(i)) {
                    try {
                        put(said.clip().get(), said, place.of(i, said), photographer);
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private static void put(Clip clip, Said said, Path file, Photographer photographer) throws IOException {
        switch (clip) {
            case Picture(var motif, var seed) -> {
                Files.createDirectories(Disk.parent(file));
                Files.write(file, photographer.sent(motif, seed, said.at()));
                Clips.stamp(file, said.at());
            }
            case Voice voice -> Clips.put(name(voice), file, said.at());
        }
    }
}
