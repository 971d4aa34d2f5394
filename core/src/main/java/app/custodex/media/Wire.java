package app.custodex.media;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;

/**
 * What the two processes say to each other: {@code int length | byte kind | body}, the highest byte first; the length counts the body.
 * One thread reads, one thread writes.
 */
final class Wire {
    /** What is said; its ordinal goes over the wire. */
    enum Kind {
        /** Asked of the worker, each followed by the size of the file and its own limits. */
        PICTURE,
        PEAKS,
        SOUND,
        FILM,
        CONVERT,
        /** To the worker while it works. */
        DATA,
        CREDIT,
        STOP,
        /** From the worker. */
        READY,
        NEED,
        FRAME,
        RESULT,
        ERROR
    }

    /** The other one does not keep to what was agreed. Nothing helps but to end it. */
    static final class Broken extends IOException {
        private static final long serialVersionUID = 1L;

        Broken(String what) {
            super(what);
        }
    }

    private static final Kind[] KINDS = Kind.values();

    private final DataInputStream in;
    private final DataOutputStream out;
    private byte[] room = new byte[1 << 16];
    private int length;

    Wire(InputStream in, OutputStream out) {
        this.in = new DataInputStream(in);
        this.out = new DataOutputStream(out);
    }

    void send(Kind kind, ByteBuffer... parts) throws IOException {
        int sum = 0;
        for (var part : parts) {
            sum += part.remaining();
        }
        out.writeInt(sum);
        out.writeByte(kind.ordinal());
        for (var part : parts) {
            if (part.hasArray()) {
                out.write(part.array(), part.arrayOffset() + part.position(), part.remaining());
            } else {
                var bytes = new byte[part.remaining()];
                part.get(bytes);
                out.write(bytes);
            }
        }
        out.flush();
    }

    /**
     * Waits for the next message.
     *
     * @param limit the longest body that is taken: so much the other one may make this one allocate
     * @throws java.io.EOFException when the other one is gone
     */
    Kind receive(int limit) throws IOException {
        length = in.readInt();
        if (length < 0 || length > limit) {
            throw new Broken("a message of " + length + " bytes, where " + limit + " are the most");
        }
        int kind = in.readUnsignedByte();
        if (kind >= KINDS.length) {
            throw new Broken("a message of kind " + kind);
        }
        if (room.length < length) {
            room = new byte[length];
        }
        in.readFully(room, 0, length);
        return KINDS[kind];
    }

    /** The body of the message that was received last; good until the next one. */
    ByteBuffer body() {
        return ByteBuffer.wrap(room, 0, length).slice();
    }

    /** The same, to keep. */
    ByteBuffer takeBody() {
        var body = body();
        room = new byte[1 << 16];
        return body;
    }
}
