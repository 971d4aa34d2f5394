package app.custodex.link;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.OptionalLong;
import java.util.zip.CRC32;

/** Compares what an entry unpacks to with what the archive promises: its length and, where there is one, its checksum. */
final class PromisedContent extends FilterInputStream {
    /** Says what a failure to read means. */
    interface Trouble {
        LinkException of(Exception e);
    }

    private final OptionalLong promised;
    private final Trouble trouble;
    private final CRC32 crc = new CRC32();
    private long left;

    PromisedContent(ArchiveIndex.Entry entry, InputStream in, Trouble trouble) {
        super(in);
        this.trouble = trouble;
        this.promised = entry.crc();
        this.left = entry.file().size();
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public long skip(long count) throws IOException {
        return count <= 0 ? 0 : Math.max(0, read(new byte[(int) Math.min(count, 1 << 16)]));
    }

    @Override
    public int read(byte[] buffer, int offset, int length) throws IOException {
        if (left == 0 || length == 0) {
            return left == 0 ? -1 : 0;
        }
        try {
            int n = super.read(buffer, offset, (int) Math.min(length, left));
            if (n < 0) {
                throw new IOException("the entry ends early");
            }
            crc.update(buffer, offset, n);
            left -= n;
            if (left == 0) {
                requireAsPromised();
            }
            return n;
        } catch (IOException | RuntimeException e) {
            throw trouble.of(e);
        }
    }

    private void requireAsPromised() throws IOException {
        if (promised.isPresent()) {
            if (super.read() >= 0) {
                throw new IOException("the entry unpacks to more than was promised");
            }
            if (promised.getAsLong() != crc.getValue()) {
                throw new IOException("the checksum of the entry is another");
            }
        }
    }
}
