package app.custodex.extract.contacts;

import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Tells a picture's format by its first bytes, since what a phone calls it can't be relied on. */
enum PictureFormat {
    JPEG("image/jpeg"),
    PNG("image/png"),
    GIF("image/gif"),
    WEBP("image/webp");

    private final String mediaType;

    PictureFormat(String mediaType) {
        this.mediaType = mediaType;
    }

    String mediaType() {
        return mediaType;
    }

    // Signatures: ITU-T T.81 (SOI), W3C PNG §5.2, GIF89a §17, WebP container RFC 9649 §2.4.
    static Optional<PictureFormat> of(byte[] bytes) {
        var start = new String(bytes, 0, Math.min(16, bytes.length), StandardCharsets.ISO_8859_1);
        if (start.startsWith("\u00ff\u00d8\u00ff")) {
            return Optional.of(JPEG);
        }
        if (start.startsWith("\u0089PNG\r\n\u001a\n")) {
            return Optional.of(PNG);
        }
        if (start.startsWith("GIF8")) {
            return Optional.of(GIF);
        }
        if (start.startsWith("RIFF") && start.startsWith("WEBP", 8)) {
            return Optional.of(WEBP);
        }
        return Optional.empty();
    }
}
