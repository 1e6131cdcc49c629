package app.knottag.server.handover;

import app.knottag.server.web.Problem;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.List;
import javax.imageio.ImageIO;

/** A signature as it was drawn on the screen: strokes of points, each from 0 to 1 of its field. */
final class Signature {

    /** A place in the field, from its upper left corner. */
    record SignedPoint(double x, double y) {}

    private static final int WIDTH = 960;
    private static final int HEIGHT = 312;
    private static final int MOST = 20_000;

    private Signature() {}

    /** Draws it as a PNG in Base64; empty when nothing was drawn. */
    static String picture(List<List<SignedPoint>> strokes) {
        long points = strokes.stream().mapToLong(List::size).sum();
        if (points == 0) return "";
        if (points > MOST)
            throw Problem.field("strokes", "too-long", "That is more than a signature. Clear it and sign once more.");
        if (strokes.stream().flatMap(List::stream).anyMatch(p -> !in(p.x()) || !in(p.y())))
            throw Problem.field("strokes", "outside", "A stroke leaves the field. Clear it and sign once more.");
        var image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_BYTE_GRAY);
        var g = image.createGraphics();
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setColor(Color.BLACK);
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setStroke(new BasicStroke(5, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        for (var stroke : strokes) if (!stroke.isEmpty()) g.draw(path(stroke));
        g.dispose();
        try (var bytes = new ByteArrayOutputStream()) {
            ImageIO.write(image, "png", bytes);
            return Base64.getEncoder().encodeToString(bytes.toByteArray());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Path2D path(List<SignedPoint> stroke) {
        var path = new Path2D.Double();
        var first = stroke.get(0);
        path.moveTo(first.x() * WIDTH, first.y() * HEIGHT);
        for (var p : stroke) path.lineTo(p.x() * WIDTH, p.y() * HEIGHT);
        return path;
    }

    private static boolean in(double share) {
        return share >= 0 && share <= 1;
    }
}
