package app.knottag.e2e;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.WriterException;
import com.google.zxing.qrcode.QRCodeWriter;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;

/** What the browser's camera sees: a tag with its code, held a little aside. */
final class Film {

    private Film() {}

    static Path of(String code, Path folder) throws IOException {
        var frame = new BufferedImage(640, 480, BufferedImage.TYPE_INT_RGB);
        var g = frame.createGraphics();
        g.setColor(new Color(0xb9b2a2));
        g.fillRect(0, 0, 640, 480);
        g.rotate(0.12, 320, 240);
        g.drawImage(code(code), 260, 140, null);
        g.dispose();
        var picture = new ByteArrayOutputStream();
        ImageIO.write(frame, "jpg", picture);
        var film = new ByteArrayOutputStream();
        for (int i = 0; i < 20; i++) picture.writeTo(film);
        return Files.write(folder.resolve("camera.mjpeg"), film.toByteArray());
    }

    private static BufferedImage code(String code) {
        try {
            var dots = new QRCodeWriter().encode(code, BarcodeFormat.QR_CODE, 200, 200);
            var image = new BufferedImage(200, 200, BufferedImage.TYPE_BYTE_BINARY);
            for (int y = 0; y < 200; y++)
                for (int x = 0; x < 200; x++) image.setRGB(x, y, dots.get(x, y) ? 0 : 0xffffff);
            return image;
        } catch (WriterException e) {
            throw new IllegalStateException(e);
        }
    }
}
