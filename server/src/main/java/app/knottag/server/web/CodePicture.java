package app.knottag.server.web;

import app.knottag.core.reading.ReadingException;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.MultiFormatReader;
import com.google.zxing.NotFoundException;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.Result;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.multi.GenericMultipleBarcodeReader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.springframework.http.HttpStatus;

/** Reads every bar code and matrix code in a picture, such as one of a label or a tag. */
public final class CodePicture {

    private static final int MOST_BYTES = 8_000_000;
    private static final long MOST_PIXELS = 24_000_000;

    private CodePicture() {}

    /**
     * Returns the texts of the codes, each once; at least one.
     *
     * @throws IllegalArgumentException if the bytes are no picture, or one that is too large to look at
     */
    public static List<String> texts(byte[] bytes) {
        if (bytes.length > MOST_BYTES)
            throw Problem.of(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "picture-too-large",
                    "The picture has more than 8 MB. Take a smaller one.");
        var image = read(bytes);
        int w = image.getWidth(), h = image.getHeight();
        var bitmap = new BinaryBitmap(
                new HybridBinarizer(new RGBLuminanceSource(w, h, image.getRGB(0, 0, w, h, null, 0, w))));
        var texts = new LinkedHashSet<String>();
        try {
            var found = new GenericMultipleBarcodeReader(new MultiFormatReader())
                    .decodeMultiple(bitmap, Map.of(DecodeHintType.TRY_HARDER, true));
            Arrays.stream(found).map(Result::getText).forEach(texts::add);
        } catch (NotFoundException none) {
            throw Problem.field(
                    "picture",
                    "no-code",
                    "No code can be read in this picture. Go closer, hold it straight and in the light, or key the "
                            + "figures in.");
        }
        return List.copyOf(texts);
    }

    private static BufferedImage read(byte[] bytes) {
        try (var stream = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            var readers = ImageIO.getImageReaders(stream);
            if (!readers.hasNext()) throw new ReadingException("This is no picture. Take a JPEG or PNG.");
            var reader = readers.next();
            try {
                reader.setInput(stream, true, true);
                // Looked at before anything is unpacked: a small file may hold a huge picture.
                if ((long) reader.getWidth(0) * reader.getHeight(0) > MOST_PIXELS)
                    throw new ReadingException("The picture has more than 24 million points. Take a smaller one.");
                return reader.read(0);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            if (e instanceof IllegalArgumentException known && known.getMessage() != null) throw known;
            throw new ReadingException("This picture is damaged. Take it again.", e);
        }
    }
}
