package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avcodec.AV_PKT_DATA_DISPLAYMATRIX;
import static org.bytedeco.ffmpeg.global.avutil.AV_FRAME_DATA_DISPLAYMATRIX;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_side_data;

import org.bytedeco.ffmpeg.avcodec.AVPacketSideData;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.IntPointer;

/**
 * How a picture is to be turned to stand upright: by quarters, and mirrored perhaps. A pixel at (x, y) goes to (a x + c y, b x + d y), moved
 * to where nothing is negative.
 */
record Turn(int a, int b, int c, int d) {
    static final Turn NONE = new Turn(1, 0, 0, 1);

    private static final int MATRIX = 36;

    static Turn of(AVPacketSideData all, int count) {
        for (int i = 0; i < count; i++) {
            var one = all.getPointer(i);
            if (one.type() == AV_PKT_DATA_DISPLAYMATRIX && one.size() >= MATRIX) {
                return of(new IntPointer(one.data()));
            }
        }
        return NONE;
    }

    static Turn of(AVFrame frame) {
        var data = av_frame_get_side_data(frame, AV_FRAME_DATA_DISPLAYMATRIX);
        return data == null || data.isNull() || data.size() < MATRIX ? NONE : of(new IntPointer(data.data()));
    }

    /** @param orientation by EXIF 2.32, 4.6.4: 1 to 8 */
    static Turn ofExif(int orientation) {
        return switch (orientation) {
            case 2 -> new Turn(-1, 0, 0, 1);
            case 3 -> new Turn(-1, 0, 0, -1);
            case 4 -> new Turn(1, 0, 0, -1);
            case 5 -> new Turn(0, 1, 1, 0);
            case 6 -> new Turn(0, 1, -1, 0);
            case 7 -> new Turn(0, -1, -1, 0);
            case 8 -> new Turn(0, -1, 1, 0);
            default -> NONE;
        };
    }

    /** The numbers are fixed point, 16.16. What is no turn by quarters is damage, or a turn that is not made here. */
    private static Turn of(IntPointer matrix) {
        var turn = new Turn(matrix.get(0) >> 16, matrix.get(1) >> 16, matrix.get(3) >> 16, matrix.get(4) >> 16);
        boolean quarters = Math.abs(turn.a * turn.d - turn.b * turn.c) == 1 && Math.abs(turn.a) + Math.abs(turn.b) == 1;
        return quarters ? turn : NONE;
    }

    boolean swapsSides() {
        return a == 0;
    }

    int[] apply(int[] pixels, int width, int height) {
        int newWidth = swapsSides() ? height : width;
        int newHeight = swapsSides() ? width : height;
        int left = a < 0 || c < 0 ? newWidth - 1 : 0;
        int top = b < 0 || d < 0 ? newHeight - 1 : 0;
        var turned = new int[pixels.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                turned[(b * x + d * y + top) * newWidth + a * x + c * y + left] = pixels[y * width + x];
            }
        }
        return turned;
    }
}
