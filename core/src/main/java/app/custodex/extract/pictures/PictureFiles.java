package app.custodex.extract.pictures;

import app.custodex.base.Digests;
import app.custodex.extract.Material;
import app.custodex.extract.pictures.CameraFacts.Unreadable;
import app.custodex.extract.pictures.PictureForm.Coding;
import app.custodex.extract.pictures.PictureForm.Facts;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import java.io.IOException;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Writes pictures in another form. */
public final class PictureFiles {
    private static final Set<String> HEIF = Set.of("heic", "heif", "hif", "avif");
    /** Larger files are read from the phone as they are only. */
    private static final long LARGEST = 200L << 20;

    private final Material material;
    private final PictureForm form;

    public PictureFiles(Material material, PictureForm form) {
        this.material = material;
        this.form = form;
    }

    /**
     * What became of a picture.
     *
     * @param lost what of it could not be kept, in words that are counted; empty when nothing was
     * @param source the SHA-512 digest of what it was made of
     */
    public record Made(byte[] content, String lost, String source) {}

    private record Content(byte[] bytes, String lost) {}

    /** It can't be given the form that is wanted; the words say what is counted. */
    public static final class Impossible extends Exception {
        private static final long serialVersionUID = 1L;

        Impossible(String what) {
            super(what);
        }
    }

    /** The name of a file in the form that is wanted. */
    public String name(String own) {
        int dot = own.lastIndexOf('.');
        return dot < 1 ? own + form.ending("") : own.substring(0, dot) + form.ending(own.substring(dot + 1));
    }

    /**
     * A picture in the form that is wanted.
     *
     * @throws IOException when it can't be read
     */
    public Made make(String item) throws IOException, Impossible {
        var ending = item.substring(item.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        byte[] file;
        try (var in = material.open(item)) {
            file = in.readNBytes((int) LARGEST + 1);
        }
        if (file.length > LARGEST) {
            throw new Impossible("pictures of more than 200 MB");
        }
        var made = made(item, ending, file);
        return new Made(made.bytes(), made.lost(), Digests.of(file));
    }

    private Content made(String item, String ending, byte[] file) throws IOException, Impossible {
        var jpeg = PictureForm.isJpeg(ending) ? jpeg(file) : Optional.<JpegFile>empty();
        if (jpeg.isPresent() && form.coding() != Coding.PNG && form.side() > MediaWorkers.LARGEST) {
            return stripped(file, jpeg.get()); // decoding it anew would only lose
        }
        var picture = material.picture(item, Math.min(form.side(), MediaWorkers.LARGEST))
                .orElseThrow(() -> new Impossible("pictures that can't be decoded"));
        if (picture.damaged()) {
            throw new Impossible("pictures of which parts are damaged");
        }
        boolean whole = picture.width() >= picture.fullWidth() && picture.height() >= picture.fullHeight();
        if (!whole && form.side() > MediaWorkers.LARGEST) {
            throw new Impossible("pictures of more than " + MediaWorkers.LARGEST + " pixels along a side");
        }
        if (jpeg.isPresent() && form.coding() != Coding.PNG && whole) {
            return stripped(file, jpeg.get());
        }
        return coded(
                picture,
                jpeg.map(JpegFile::facts)
                        .orElseGet(() -> HEIF.contains(ending) ? HeifFacts.in(file) : CameraFacts.NONE));
    }

    private static Optional<JpegFile> jpeg(byte[] file) {
        try {
            return Optional.of(JpegFile.read(file));
        } catch (IOException damaged) {
            return Optional.empty();
        }
    }

    private Content stripped(byte[] whole, JpegFile file) {
        if (form.facts() == Facts.ALL) {
            return new Content(whole, "");
        }
        var kept = kept(file.facts(), false);
        return new Content(file.with(kept.facts()), kept.lost());
    }

    private Content coded(Picture picture, CameraFacts facts) throws IOException {
        var kept = kept(facts, true);
        var content = form.coding() == Coding.PNG
                ? PictureCoder.png(picture, kept.facts())
                : JpegFile.read(PictureCoder.jpeg(picture, form.quality())).with(kept.facts());
        return new Content(content, kept.lost());
    }

    private record Kept(CameraFacts facts, String lost) {}

    private Kept kept(CameraFacts facts, boolean turned) {
        try {
            return new Kept(facts.keeping(form.facts(), turned), "");
        } catch (Unreadable e) {
            return new Kept(
                    new CameraFacts(Optional.empty(), facts.profile()),
                    "what the camera wrote into pictures, where it could not be taken apart");
        }
    }
}
