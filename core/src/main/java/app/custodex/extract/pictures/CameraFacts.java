package app.custodex.extract.pictures;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Optional;
import org.apache.commons.imaging.bytesource.ByteSource;
import org.apache.commons.imaging.formats.tiff.TiffImageMetadata;
import org.apache.commons.imaging.formats.tiff.TiffImageParser;
import org.apache.commons.imaging.formats.tiff.TiffImagingParameters;
import org.apache.commons.imaging.formats.tiff.constants.ExifTagConstants;
import org.apache.commons.imaging.formats.tiff.constants.TiffDirectoryType;
import org.apache.commons.imaging.formats.tiff.constants.TiffTagConstants;
import org.apache.commons.imaging.formats.tiff.write.TiffImageWriterLossy;
import org.apache.commons.imaging.formats.tiff.write.TiffOutputSet;

/**
 * What a camera wrote into a picture.
 *
 * @param exif a TIFF structure (Exif 2.32, 4.5)
 * @param profile of its colours, as the ICC has it (ISO 15076-1)
 */
record CameraFacts(Optional<byte[]> exif, Optional<byte[]> profile) {
    static final CameraFacts NONE = new CameraFacts(Optional.empty(), Optional.empty());
    private static final int THUMBNAIL = TiffDirectoryType.TIFF_DIRECTORY_IFD1.directoryType;
    private static final int PLACE = TiffDirectoryType.EXIF_DIRECTORY_GPS.directoryType;
    private static final short UPRIGHT = 1;

    /**
     * What may stay of it.
     *
     * @param turned whether the pixels were turned, so that what was up is up without being told
     * @throws Unreadable when it can't be taken apart, so that nobody knows what it tells
     */
    CameraFacts keeping(PictureForm.Facts facts, boolean turned) throws Unreadable {
        if (exif.isEmpty() || facts == PictureForm.Facts.ALL && !turned) {
            return this;
        }
        try {
            var parser = new TiffImageParser();
            var read = parser.getMetadata(ByteSource.array(exif.get()), new TiffImagingParameters());
            if (!(read instanceof TiffImageMetadata known)) {
                throw new Unreadable();
            }
            var all = known.getOutputSet();
            var kept = facts == PictureForm.Facts.NONE ? onlyOrientation(all, turned) : all(all, facts, turned);
            if (kept.isEmpty()) {
                return new CameraFacts(Optional.empty(), profile);
            }
            var written = new ByteArrayOutputStream();
            new TiffImageWriterLossy(kept.byteOrder).write(written, kept);
            return new CameraFacts(Optional.of(written.toByteArray()), profile);
        } catch (IOException | RuntimeException e) { // the library meets hostile numbers with either
            throw new Unreadable(e);
        }
    }

    private static TiffOutputSet onlyOrientation(TiffOutputSet all, boolean turned) throws IOException {
        var kept = new TiffOutputSet(all.byteOrder);
        var field = all.findField(TiffTagConstants.TIFF_TAG_ORIENTATION);
        if (field != null && !turned) {
            kept.getOrCreateRootDirectory().add(field);
        }
        return kept;
    }

    /** The small picture inside is left out: it may show what was cut away, and has facts of its own. */
    private static TiffOutputSet all(TiffOutputSet all, PictureForm.Facts facts, boolean turned) throws IOException {
        var kept = new TiffOutputSet(all.byteOrder);
        for (var directory : all.getDirectories()) {
            boolean place = directory.getType() == PLACE && facts == PictureForm.Facts.NO_PLACE;
            if (directory.getType() != THUMBNAIL && !place) {
                directory.setJpegImageData(null);
                kept.addDirectory(directory);
            }
        }
        if (facts == PictureForm.Facts.NO_PLACE) {
            // Makers keep places in their own notes too, in forms of their own.
            kept.removeField(ExifTagConstants.EXIF_TAG_MAKER_NOTE);
            kept.removeField(ExifTagConstants.EXIF_TAG_USER_COMMENT);
        }
        if (turned) {
            kept.removeField(ExifTagConstants.EXIF_TAG_EXIF_IMAGE_WIDTH);
            kept.removeField(ExifTagConstants.EXIF_TAG_EXIF_IMAGE_LENGTH);
        }
        if (turned && kept.findField(TiffTagConstants.TIFF_TAG_ORIENTATION) != null) {
            kept.removeField(TiffTagConstants.TIFF_TAG_ORIENTATION);
            kept.getOrCreateRootDirectory().add(TiffTagConstants.TIFF_TAG_ORIENTATION, UPRIGHT);
        }
        return kept;
    }

    /** What the camera wrote can't be taken apart. */
    static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1L;

        Unreadable() {}

        Unreadable(Exception cause) {
            super(cause);
        }
    }
}
