package app.custodex.extract.originals;

import app.custodex.base.DigestAside;
import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pace;
import app.custodex.extract.Spool;
import app.custodex.extract.UnreadableException;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.attribute.FileTime;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.ArchiveEntry;
import org.apache.commons.compress.archivers.ArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.zip.Zip64Mode;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.io.output.CloseShieldOutputStream;

/** Files in one archive, under the paths that they have on the phone and with the times at which they were last changed. */
public final class FileArchive implements Format {
    private final boolean tar;

    private FileArchive(boolean tar) {
        this.tar = tar;
    }

    /** In every form. */
    public static List<Format> all() {
        return List.of(new FileArchive(false), new FileArchive(true));
    }

    @Override
    public String code() {
        return tar ? "tar" : "zip";
    }

    @Override
    public String label() {
        return tar ? "One TAR archive (POSIX.1-2001), as on the phone" : "One ZIP archive, as on the phone";
    }

    @Override
    public String leavesOut() {
        return "Leaves out lists, which have no files";
    }

    @Override
    public Set<KindGroup> groups() {
        return EnumSet.of(KindGroup.PICTURES, KindGroup.MUSIC, KindGroup.BOOKS, KindGroup.OTHER);
    }

    @Override
    public boolean writesFilesAsTheyAre() {
        return true;
    }

    @Override
    public Pace pace(Chosen chosen) {
        return Pace.AS_THEY_ARE;
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        out.file(batch.title(), "." + code(), to -> {
            if (tar) {
                var archive = new TarArchiveOutputStream(CloseShieldOutputStream.wrap(to), "UTF-8");
                archive.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
                archive.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_POSIX);
                archive.setAddPaxHeadersForNonAsciiNames(true);
                write(batch, out, archive, FileArchive::tarEntry);
            } else {
                write(batch, out, zip(to), FileArchive::zipEntry);
            }
        });
    }

    private static ZipArchiveOutputStream zip(OutputStream to) {
        var archive = new ZipArchiveOutputStream(CloseShieldOutputStream.wrap(to));
        archive.setUseZip64(Zip64Mode.AsNeeded);
        return archive;
    }

    private interface Entry<E extends ArchiveEntry> {
        E of(String path, long bytes, FileTime modified);
    }

    private static TarArchiveEntry tarEntry(String path, long bytes, FileTime modified) {
        var entry = new TarArchiveEntry(path);
        entry.setSize(bytes);
        entry.setLastModifiedTime(modified);
        return entry;
    }

    private static ZipArchiveEntry zipEntry(String path, long bytes, FileTime modified) {
        var entry = new ZipArchiveEntry(path);
        entry.setSize(bytes);
        entry.setLastModifiedTime(modified);
        return entry;
    }

    private static <E extends ArchiveEntry> void write(
            Batch batch, OutFolder out, ArchiveOutputStream<E> archive, Entry<E> entry) throws IOException {
        try (archive) {
            var written = new HashSet<String>();
            for (var thing : batch.each(thing -> thing)) {
                var item = item(thing, batch);
                // Two things may be read from one file; it is written once.
                if (item.isPresent() && written.add(item.get()) && !out.isPreview()) {
                    add(item.get(), batch, archive, entry);
                }
            }
        }
    }

    private static Optional<String> item(Thing thing, Batch batch) {
        if (thing instanceof MediaFile file && file.bytes() > 0) {
            return Optional.of(file.id().item());
        }
        batch.leftOut(thing instanceof MediaFile ? "files that the phone does not have" : "lists, which have no files");
        return Optional.empty();
    }

    /** What can't be read to its end is left out, since an entry can't be taken back. */
    private static <E extends ArchiveEntry> void add(
            String item, Batch batch, ArchiveOutputStream<E> archive, Entry<E> entry) throws IOException {
        try (var spool = new Spool()) {
            FileTime modified;
            var digest = new DigestAside(spool);
            try (var content = batch.material().open(item)) {
                content.transferTo(digest);
                modified = FileTime.from(batch.material().modified(item));
            } catch (UnreadableException e) {
                batch.unreadable(item, "so it is left out");
                return;
            }
            archive.putArchiveEntry(entry.of(item, spool.size(), modified));
            try (var content = spool.content()) {
                content.transferTo(archive);
            }
            archive.closeArchiveEntry();
            batch.compare(item, digest.digest().join());
        }
    }
}
