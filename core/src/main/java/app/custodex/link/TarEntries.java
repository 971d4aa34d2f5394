package app.custodex.link;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalLong;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;

/** Lists an uncompressed TAR archive (POSIX pax and ustar, GNU) and reads its members in place. */
final class TarEntries {
    private static final int BLOCK = 512;
    // Fields of a header (POSIX.1-2017, pax, "ustar Interchange Format").
    private static final int NAME = 0;
    private static final int LINK_NAME = 157;
    private static final int NAME_LENGTH = 100;
    private static final int PREFIX = 345;
    private static final int PREFIX_LENGTH = 155;
    private static final char UNREADABLE = '\ufffd';

    private final FileChannel channel;
    private final ArchiveIndex.Builder builder;

    private TarEntries(FileChannel channel, ArchiveIndex.Builder builder) {
        this.channel = channel;
        this.builder = builder;
    }

    static ArchiveIndex index(Path file, Limits limits) throws IOException {
        var channel = FileChannel.open(file);
        try {
            var builder = new ArchiveIndex.Builder(limits);
            new TarEntries(channel, builder).read();
            return builder.index(channel, channel.size());
        } catch (IOException | RuntimeException e) {
            channel.close();
            throw e;
        }
    }

    /** One byte of a name for each character, so that no byte is lost; pax names are UTF-8 all the same. */
    private static TarArchiveInputStream open(InputStream in) {
        return new TarArchiveInputStream(in, StandardCharsets.ISO_8859_1.name());
    }

    /** Goes from header to header; of a torn archive, what lies before the tear is taken. */
    private void read() throws IOException {
        var tar = open(Channels.newInputStream(channel)); // closed with the channel
        Optional<String> last = Optional.empty();
        long end = 0;
        try {
            for (var entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
                if (!entry.isCheckSumOK()) {
                    throw new IOException("a header that is none");
                }
                long content = tar.getBytesRead();
                add(entry, end, content);
                last = Optional.of(name(entry.getName(), end, content, NAME));
                end = content + (entry.getSize() + BLOCK - 1) / BLOCK * BLOCK;
            }
        } catch (LinkException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            if (last.isEmpty()) {
                throw e;
            }
            builder.torn(last.get());
            return;
        }
        if (last.isEmpty()) {
            throw new IOException("an archive without entries");
        }
        if (!isEndMark(end)) {
            builder.torn(last.get());
        }
    }

    /** An archive ends with blocks of zeros; without one it was cut, be it between two members. */
    private boolean isEndMark(long at) throws IOException {
        var block = ByteBuffer.allocate(BLOCK);
        while (block.hasRemaining() && channel.read(block, at + block.position()) >= 0) {
            // until it is full, or the archive ends
        }
        if (block.hasRemaining()) {
            return false;
        }
        for (byte b : block.array()) {
            if (b != 0) {
                return false;
            }
        }
        return true;
    }

    /**
     * @param start where its headers begin in the archive
     * @param content where its content begins
     */
    private void add(TarArchiveEntry entry, long start, long content) throws IOException {
        var path = builder.path(name(entry.getName(), start, content, NAME));
        if (path.isEmpty()) {
            return;
        }
        var modified = Optional.ofNullable(entry.getLastModifiedTime())
                .map(FileTime::toInstant)
                .orElse(Instant.EPOCH);
        if (entry.isDirectory()) {
            builder.folder(path.get(), modified);
        } else if (entry.isSymbolicLink()) {
            builder.link(path.get(), name(entry.getLinkName(), start, content, LINK_NAME), modified);
        } else if (entry.isLink()) {
            builder.sameAs(path.get(), builder.path(name(entry.getLinkName(), start, content, LINK_NAME)));
        } else if (entry.isFIFO()) {
            builder.note(path.get(), "It is a named pipe in the archive and holds no content");
        } else if (entry.isCharacterDevice() || entry.isBlockDevice()) {
            builder.note(path.get(), "It is a device in the archive and holds no content");
        } else if (entry.isSparse()) {
            builder.file(path.get(), entry.getRealSize(), modified, "", OptionalLong.empty(), () -> sparse(start));
        } else if (entry.isFile()) {
            builder.file(
                    path.get(),
                    entry.getSize(),
                    modified,
                    "",
                    OptionalLong.empty(),
                    () -> new Slice(channel, content, entry.getSize()));
        } else {
            builder.refuse(
                    path.get().text(),
                    "It is something in the archive that is neither file nor folder nor link",
                    "It was left out; unpack the archive with the program that made it");
        }
    }

    /** The library fills the holes of a sparse member; it is read from its own headers on. */
    private InputStream sparse(long start) throws IOException {
        var tar = open(new Slice(channel, start, channel.size() - start));
        if (tar.getNextEntry() == null) {
            tar.close();
            throw new IOException("the member is gone");
        }
        return new FilterInputStream(tar) {
            @Override
            public void close() {
                // The archive stays open.
            }
        };
    }

    /**
     * A name as text. Where it stands in the header itself, or goes on from there in the way of GNU, each of its characters is one
     * byte of it; else it comes from a pax header and is text already, unless its bytes there are none.
     *
     * @param start where the headers begin in the archive
     */
    private String name(String name, long start, long content, int field) throws IOException {
        if (name.chars().allMatch(c -> c < 0x80)) {
            return RawName.shown(name);
        }
        if (name.indexOf(UNREADABLE) >= 0) {
            var raw = PaxRecords.value(channel, start, content - BLOCK, field == NAME ? "path" : "linkpath");
            if (raw.isPresent()) {
                return RawName.shown(raw.get());
            }
        }
        boolean bytes = name.chars().allMatch(c -> c < 0x100);
        var bare = name.endsWith("/") ? name.substring(0, name.length() - 1) : name;
        var header = text(content, field, NAME_LENGTH);
        var whole = header.endsWith("/") ? header.substring(0, header.length() - 1) : header;
        var prefix = field == NAME ? text(content, PREFIX, PREFIX_LENGTH) : "";
        boolean here = bare.equals(whole)
                || bare.equals(prefix + "/" + whole)
                || header.length() == NAME_LENGTH && bare.startsWith(header);
        return bytes && here ? RawName.shown(name.getBytes(StandardCharsets.ISO_8859_1)) : RawName.shown(name);
    }

    private String text(long content, int field, int length) throws IOException {
        var bytes = ByteBuffer.allocate(length);
        channel.read(bytes, Math.max(0, content - BLOCK) + field);
        var text = new String(bytes.array(), StandardCharsets.ISO_8859_1);
        int end = text.indexOf('\0');
        return end < 0 ? text : text.substring(0, end);
    }

    /** A part of a file, read by place, so that several can be read at once. */
    private static final class Slice extends InputStream {
        private final FileChannel channel;
        private final long end;
        private long position;

        Slice(FileChannel channel, long from, long length) {
            this.channel = channel;
            this.position = from;
            this.end = from + length;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (position >= end) {
                return -1;
            }
            int n = channel.read(ByteBuffer.wrap(buffer, offset, (int) Math.min(length, end - position)), position);
            position += Math.max(0, n);
            return n;
        }
    }
}
