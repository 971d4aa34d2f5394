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
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Writes files, byte for byte or as pictures in another form. */
final class Put {
    private static final Set<ThingKind> SOUND =
            EnumSet.of(ThingKind.TRACK, ThingKind.PODCAST, ThingKind.MEMO, ThingKind.RINGTONE, ThingKind.VOICEMAIL);

    private final Batch batch;
    private final PictureForm form;
    private final Optional<SoundForm> sound;
    private final PictureFiles pictures;

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
            batch.problem(Problem.loss(
                    file.item(), "It can't be read, so it is left out", "Check the layer; look into an older one"));
            return Optional.empty();
        }
    }

    private Path asItIs(OutFolder into, String name, String item) throws IOException {
        try (var content = batch.material().open(item)) {
            return into.original(name, content, batch.material().modified(item));
        }
    }

    private Path sound(OutFolder into, String name, String item, SoundForm wanted) throws IOException {
        if (into.isPreview()) {
            return into.original(
                    wanted.name(name),
                    new ByteArrayInputStream(new byte[0]),
                    batch.material().modified(item));
        }
        try (var spool = new Spool()) {
            if (!batch.material().convert(item, wanted.coding(), wanted.kilobits(), spool)) {
                batch.problem(Problem.note(item, "It can't be given another form, and is written as it is", ""));
                return asItIs(into, name, item);
            }
            try (var content = spool.content()) {
                return into.original(
                        wanted.name(name), content, batch.material().modified(item));
            }
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
            return Optional.of(into.original(
                    pictures.name(name),
                    new ByteArrayInputStream(new byte[0]),
                    batch.material().modified(item)));
        }
        try {
            var made = pictures.make(item);
            if (!made.lost().isEmpty()) {
                batch.leftOut(made.lost());
            }
            return Optional.of(into.original(
                    pictures.name(name),
                    new ByteArrayInputStream(made.content()),
                    batch.material().modified(item)));
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
