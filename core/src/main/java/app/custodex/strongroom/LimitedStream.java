package app.custodex.strongroom;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** The next so many bytes of a stream, and no more. */
final class LimitedStream extends FilterInputStream {
    private long left;

    LimitedStream(InputStream in, long length) {
        super(in);
        this.left = length;
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] buffer, int offset, int length) throws IOException {
        if (left <= 0) {
            return -1;
        }
        int n = super.read(buffer, offset, (int) Math.min(length, left));
        left -= Math.max(n, 0);
        return n;
    }
}
