package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.Mark;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.EncodeHintType;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.ReaderException;
import com.google.zxing.WriterException;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.oned.Code128Writer;
import com.google.zxing.qrcode.QRCodeReader;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import com.google.zxing.qrcode.encoder.ByteMatrix;
import com.google.zxing.qrcode.encoder.Encoder;
import com.google.zxing.qrcode.encoder.QRCode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/** What is dark in a code, as boxes in millimetres that go together edge to edge. */
final class Codes {

    /** Modules kept clear round a matrix code, as the standard wants. */
    private static final int CLEAR = 4;

    /** Dots of a module at which a code is read before it is printed: from afar, and near. */
    private static final int[] SIZES = {3, 5};

    private static final int CLEAR_BARS = 10;

    private Codes() {}

    static List<Area> dark(Mark.Matrix mark) {
        var code = matrix(mark.text());
        int n = code.getWidth();
        double module = mark.box().width() / (n + 2 * CLEAR);
        var dark = new ArrayList<Area>();
        for (int y = 0; y < n; y++)
            for (int x = 0; x < n; x++) {
                int from = x;
                while (x < n && code.get(x, y) == 1) x++;
                if (x > from)
                    dark.add(new Area(
                            mark.box().x() + (from + CLEAR) * module,
                            mark.box().y() + (y + CLEAR) * module,
                            (x - from) * module,
                            module));
            }
        return dark;
    }

    /** Encodes a text; where chance drew something into it that a reader takes for a corner, another mask is taken. */
    private static ByteMatrix matrix(String text) {
        var first = encode(text, Map.of());
        if (reads(first, text)) return first;
        return IntStream.range(0, QRCode.NUM_MASK_PATTERNS)
                .mapToObj(mask -> encode(text, Map.of(EncodeHintType.QR_MASK_PATTERN, mask)))
                .filter(code -> reads(code, text))
                .findFirst()
                .orElse(first);
    }

    private static ByteMatrix encode(String text, Map<EncodeHintType, ?> hints) {
        try {
            return Encoder.encode(text, ErrorCorrectionLevel.Q, hints).getMatrix();
        } catch (WriterException e) {
            throw new IllegalStateException("no matrix code for " + text, e);
        }
    }

    private static boolean reads(ByteMatrix code, String text) {
        return IntStream.of(SIZES).allMatch(size -> reads(code, text, size));
    }

    private static boolean reads(ByteMatrix code, String text, int size) {
        int n = code.getWidth() + 2 * CLEAR;
        int side = n * size;
        var picture = new int[side * side];
        for (int y = 0; y < side; y++)
            for (int x = 0; x < side; x++) {
                int cx = x / size - CLEAR, cy = y / size - CLEAR;
                boolean inside = cx >= 0 && cy >= 0 && cx < code.getWidth() && cy < code.getHeight();
                picture[y * side + x] = inside && code.get(cx, cy) == 1 ? 0 : 0xFFFFFF;
            }
        try {
            return new QRCodeReader()
                    .decode(
                            new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(side, side, picture))),
                            Map.of(DecodeHintType.TRY_HARDER, true))
                    .getText()
                    .equals(text);
        } catch (ReaderException unread) {
            return false;
        }
    }

    static List<Area> dark(Mark.Bars mark) {
        boolean[] bars = new Code128Writer().encode(mark.text());
        double module = mark.box().width() / (bars.length + 2 * CLEAR_BARS);
        var dark = new ArrayList<Area>();
        for (int x = 0; x < bars.length; x++) {
            int from = x;
            while (x < bars.length && bars[x]) x++;
            if (x > from)
                dark.add(new Area(
                        mark.box().x() + (from + CLEAR_BARS) * module,
                        mark.box().y(),
                        (x - from) * module,
                        mark.box().height()));
        }
        return dark;
    }
}
