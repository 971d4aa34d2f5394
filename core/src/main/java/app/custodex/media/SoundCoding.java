package app.custodex.media;

/** In which form sound is written. */
public enum SoundCoding {
    /** ISO/IEC 11172-3. */
    MP3("mp3", "libmp3lame", "s16p"),
    /** AAC in a file as players take it (ISO/IEC 14496-3 and 14496-14). */
    M4A("mp4", "aac", "fltp"),
    /** RFC 6716 in a file by RFC 7845. */
    OPUS("opus", "libopus", "s16"),
    /** RFC 9639; loses nothing. */
    FLAC("flac", "flac", "s16"),
    /** Samples of 16 bits, packed in no way. */
    WAV("wav", "pcm_s16le", "s16");

    private final String container;
    private final String encoder;
    private final String samples;

    SoundCoding(String container, String encoder, String samples) {
        this.container = container;
        this.encoder = encoder;
        this.samples = samples;
    }

    /** In the words of the library. */
    String container() {
        return container;
    }

    String encoder() {
        return encoder;
    }

    String samples() {
        return samples;
    }

    /** How many samples a second it takes of a recording that has so many. */
    int rate(int own) {
        return switch (this) {
            case OPUS -> Sounds.RATE;
            case FLAC, WAV -> own;
            case MP3, M4A ->
                switch (own) {
                    case 8_000, 16_000, 22_050, 24_000, 32_000, 44_100, 48_000 -> own;
                    default -> own < Sounds.RATE / 2 ? 24_000 : Sounds.RATE;
                };
        };
    }
}
