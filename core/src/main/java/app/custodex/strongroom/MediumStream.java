package app.custodex.strongroom;

import com.sun.nio.file.ExtendedOpenOption;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Reads a file past the system's cache where the file system allows it, so that a check sees the medium and not what was
 * written a moment ago and is still in memory.
 */
final class MediumStream extends InputStream {
    private static final int SIZE = 1 << 20;

    private final FileChannel channel;
    private final ByteBuffer buffer;
    private boolean ended;

    MediumStream(Path file) throws IOException {
        int block = (int) Math.clamp(Files.getFileStore(file).getBlockSize(), 512, 1 << 16);
        FileChannel opened;
        try {
            opened = FileChannel.open(file, StandardOpenOption.READ, ExtendedOpenOption.DIRECT);
        } catch (IOException | UnsupportedOperationException notHere) {
            opened = FileChannel.open(file, StandardOpenOption.READ);
        }
        channel = opened;
        buffer = ByteBuffer.allocateDirect(SIZE + block)
                .alignedSlice(block)
                .limit(SIZE)
                .slice()
                .position(SIZE);
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] bytes, int offset, int length) throws IOException {
        if (!buffer.hasRemaining()) {
            if (ended) {
                return -1;
            }
            buffer.clear();
            int n = channel.read(buffer);
            buffer.flip();
            // Less than was asked for is the end of the file; behind it a direct read would not be aligned.
            ended = n < SIZE;
            if (n <= 0) {
                return -1;
            }
        }
        int n = Math.min(length, buffer.remaining());
        buffer.get(bytes, offset, n);
        return n;
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
