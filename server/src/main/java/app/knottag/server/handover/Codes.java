package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.Mark;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.oned.Code128Writer;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import com.google.zxing.qrcode.encoder.Encoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What is dark in a code, as boxes in millimetres that go together edge to edge. */
final class Codes {

    /** Modules kept clear round a matrix code inside its box; the paper round it does the rest. */
    private static final int CLEAR = 3;

    private static final int CLEAR_BARS = 10;

    private Codes() {}

    static List<Area> dark(Mark.Matrix mark) {
        try {
            var code = Encoder.encode(
                            mark.text(),
                            ErrorCorrectionLevel.M,
                            Map.of(EncodeHintType.CHARACTER_SET, StandardCharsets.UTF_8.name()))
                    .getMatrix();
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
        } catch (WriterException e) {
            throw new IllegalStateException("no matrix code for " + mark.text(), e);
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
