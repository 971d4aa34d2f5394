package app.custodex.extract.originals;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Spool;
import app.custodex.extract.UnreadableException;
import app.custodex.extract.pictures.PictureFiles;
import app.custodex.extract.pictures.PictureFiles.Impossible;
import app.custodex.extract.pictures.PictureForm;
import app.custodex.media.SoundCoding;
import app.custodex.model.Attachment;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import java.io.ByteArrayInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.StreamSupport;

/** Writes files, byte for byte or in another form. */
final class Put implements Closeable {
    private static final Set<ThingKind> SOUND =
            EnumSet.of(ThingKind.TRACK, ThingKind.PODCAST, ThingKind.MEMO, ThingKind.RINGTONE, ThingKind.VOICEMAIL);

    private final Batch batch;
    private final PictureForm form;
    private final Optional<SoundForm> sound;
    private final PictureFiles pictures;
    private final Conversions<PictureFiles.Made> madePictures;
    private final Conversions<Optional<Spool>> madeSounds;

    /**
     * In which form sound is written.
     *
     * @param kilobits a second of stereo, where the coding asks for it
     */
    record SoundForm(SoundCoding coding, int kilobits) {
        String name(String own) {
            int dot = own.lastIndexOf('.');
            return (dot < 1 ? own : own.substring(0, dot)) + "." + coding.name().toLowerCase(Locale.ROOT);
        }
    }

    /** @param sound empty when it is written as it is */
    Put(Batch batch, PictureForm form, Optional<SoundForm> sound) {
        this.batch = batch;
        this.form = form;
        this.sound = sound;
        pictures = new PictureFiles(batch.material(), form);
        madePictures = new Conversions<>(
                items(thing -> !form.keepsFiles() && thing.kind() == ThingKind.PICTURE), pictures::make, made -> {});
        madeSounds = new Conversions<>(
                items(thing -> sound.isPresent() && SOUND.contains(thing.kind())), this::converted, Put::discard);
    }

    /** The files of the things that are given another form. */
    private Iterator<String> items(Predicate<Thing> meant) {
        return StreamSupport.stream(batch.look().spliterator(), false)
                .filter(meant)
                .flatMap(thing -> file(thing).stream())
                .iterator();
    }

    /** The file of which a thing was read; empty when the phone does not have it. */
    private static Optional<String> file(Thing thing) {
        return switch (thing) {
            case MediaFile file when file.bytes() > 0 -> Optional.of(file.id().item());
            case Voicemail mail
            when mail.sound().there() -> Optional.of(mail.sound().item());
            default -> Optional.empty();
        };
    }

    /** Empty when it can't be decoded. */
    private Optional<Spool> converted(String item) throws IOException {
        var form = sound.orElseThrow();
        var spool = new Spool();
        boolean whole = false;
        try {
            whole = batch.material().convert(item, form.coding(), form.kilobits(), spool);
            return whole ? Optional.of(spool) : Optional.empty();
        } finally {
            if (!whole) {
                spool.close();
            }
        }
    }

    private static void discard(Optional<Spool> made) {
        try {
            if (made.isPresent()) {
                made.get().close();
            }
        } catch (IOException e) {
            // It goes with the program.
        }
    }

    /** Ends what is being made. */
    @Override
    public void close() {
        madePictures.close();
        madeSounds.close();
    }

    /**
     * Writes one.
     *
     * @param path of folders below the first one
     * @return where it is; empty when it is nowhere, which was told
     */
    Optional<Path> into(OutFolder folder, List<String> path, String name, Attachment file, Thing of)
            throws IOException {
        if (!file.there()) {
            batch.leftOut("files that the phone does not have");
            return Optional.empty();
        }
        try {
            var into = folder;
            for (var each : path) {
                into = into.sharedFolder(each);
            }
            if (sound.isPresent() && SOUND.contains(of.kind())) {
                return Optional.of(sound(into, name, file.item(), sound.get()));
            }
            if (form.keepsFiles() || of.kind() != ThingKind.PICTURE && of.kind() != ThingKind.VIDEO) {
                return Optional.of(asItIs(into, name, file.item()));
            }
            return of.kind() == ThingKind.VIDEO ? video(into, name, file.item()) : picture(into, name, file.item());
        } catch (UnreadableException e) {
            batch.unreadable(file.item(), "so it is left out");
            return Optional.empty();
        }
    }

    private Path asItIs(OutFolder into, String name, String item) throws IOException {
        return batch.original(into, name, item);
    }

    /** Writes what was made of an item. */
    private Path made(OutFolder into, String name, InputStream content, String item) throws IOException {
        return into.original(name, content, batch.material().modified(item)).file();
    }

    private Path sound(OutFolder into, String name, String item, SoundForm wanted) throws IOException {
        if (into.isPreview()) {
            return made(into, wanted.name(name), InputStream.nullInputStream(), item);
        }
        var made = soundOf(item);
        if (made.isEmpty()) {
            batch.problem(Problem.note(item, "It can't be given another form, and is written as it is", ""));
            return asItIs(into, name, item);
        }
        try (var spool = made.get();
                var content = spool.content()) {
            return made(into, wanted.name(name), content, item);
        }
    }

    private Optional<Spool> soundOf(String item) throws IOException {
        try {
            return madeSounds.take(item);
        } catch (Impossible e) {
            return Optional.empty();
        }
    }

    private Optional<Path> video(OutFolder into, String name, String item) throws IOException {
        if (form.facts() != PictureForm.Facts.ALL) {
            batch.leftOut("videos, since nothing can be taken out of them");
            return Optional.empty();
        }
        return Optional.of(asItIs(into, name, item));
    }

    private Optional<Path> picture(OutFolder into, String name, String item) throws IOException {
        if (into.isPreview()) {
            return Optional.of(made(into, pictures.name(name), InputStream.nullInputStream(), item));
        }
        try {
            var made = madePictures.take(item);
            batch.compare(item, made.source());
            if (!made.lost().isEmpty()) {
                batch.leftOut(made.lost());
            }
            return Optional.of(made(into, pictures.name(name), new ByteArrayInputStream(made.content()), item));
        } catch (Impossible e) {
            if (form.facts() != PictureForm.Facts.ALL) {
                batch.leftOut(e.getMessage() + ", since nothing can be taken out of them");
                return Optional.empty();
            }
            batch.problem(Problem.note(item, "It can't be given another form, and is written as it is", ""));
            return Optional.of(asItIs(into, name, item));
        }
    }
}
