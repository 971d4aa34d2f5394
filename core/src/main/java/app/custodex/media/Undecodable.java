package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avutil.av_strerror;

import java.io.IOException;
import java.nio.charset.StandardCharsets;

/** In the worker: the file can't be decoded, and the next one can. The message is for the log. */
final class Undecodable extends IOException {
    private static final long serialVersionUID = 1L;

    Undecodable(String message) {
        super(message);
    }

    /** @throws Undecodable when the library says so by a negative result */
    static void check(int result, String doing) throws Undecodable {
        if (result < 0) {
            var text = new byte[128];
            av_strerror(result, text, text.length);
            throw new Undecodable(doing + ": " + new String(text, StandardCharsets.UTF_8).strip());
        }
    }
}
