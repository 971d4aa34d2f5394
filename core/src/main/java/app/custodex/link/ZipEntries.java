package app.custodex.link;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalLong;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;

/** Lists a ZIP archive (PKWARE APPNOTE). */
final class ZipEntries {
    /** Of names that don't say that they are UTF-8 (APPNOTE appendix D). */
    private static final Charset OLD_NAMES = Charset.forName("IBM437");

    private ZipEntries() {}

    static ArchiveIndex index(Path file, Limits limits) throws IOException {
        var builder = new ArchiveIndex.Builder(limits);
        var zip = ZipFile.builder().setPath(file).get();
        try {
            for (var entries = zip.getEntriesInPhysicalOrder(); entries.hasMoreElements(); ) {
                add(builder, zip, entries.nextElement());
            }
            return builder.index(zip, Files.size(file));
        } catch (IOException | RuntimeException e) {
            zip.close();
            throw e;
        }
    }

    private static void add(ArchiveIndex.Builder builder, ZipFile zip, ZipArchiveEntry entry) throws IOException {
        var path = builder.path(name(entry));
        if (path.isEmpty()) {
            return;
        }
        var modified = Optional.ofNullable(entry.getLastModifiedTime())
                .map(FileTime::toInstant)
                .orElse(Instant.EPOCH);
        if (entry.isDirectory()) {
            builder.folder(path.get(), modified);
        } else if (entry.isUnixSymlink()) {
            builder.link(path.get(), zip.getUnixSymlink(entry), modified);
        } else {
            // The checksum tells a changed file even when size and time are the same.
            var etag = "\"" + Long.toHexString(entry.getCrc()) + "\"";
            builder.file(path.get(), entry.getSize(), modified, etag, OptionalLong.of(entry.getCrc()), () -> {
                if (!zip.canReadEntryData(entry)) {
                    throw new LinkException.Item(
                            path.get(),
                            "It is locked with a password, or packed in a way that can't be read here",
                            "Unpack the archive with the program that made it, and add the folder instead",
                            null);
                }
                return zip.getInputStream(entry);
            });
        }
    }

    private static String name(ZipArchiveEntry entry) {
        var raw = entry.getRawName();
        if (raw == null || entry.getNameSource() == ZipArchiveEntry.NameSource.UNICODE_EXTRA_FIELD) {
            return RawName.shown(entry.getName());
        }
        if (entry.getGeneralPurposeBit().usesUTF8ForNames()) {
            return RawName.shown(raw);
        }
        try {
            // Many programs write UTF-8 without saying so.
            return RawName.shown(StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(raw))
                    .toString());
        } catch (CharacterCodingException oldName) {
            return RawName.shown(new String(raw, OLD_NAMES));
        }
    }
}
