package bench;

import app.knottag.core.kind.Kinds;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.Reader;
import com.google.zxing.ReaderException;
import com.google.zxing.common.HybridBinarizer;
import com.google.zxing.oned.Code128Reader;
import com.google.zxing.qrcode.QRCodeReader;
import java.awt.image.BufferedImage;
import java.sql.Connection;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.rendering.PDFRenderer;

/** Paper of a hand-over: how long it takes to make, and whether every code on it can be read from a picture of it. */
final class Paper {

    private static final double DOT = 200 / 25.4;
    private static final Map<DecodeHintType, ?> HARDER = Map.of(DecodeHintType.TRY_HARDER, true);
    private static final int DEVICES = 300;
    private static final int TAGS = 1000;

    private Paper() {}

    static void measure(Connection db) throws Exception {
        long site = fill(db);
        for (String type : new String[] {"CLIENT", "TECHNICIAN", "OFFICE"}) {
            byte[] pdf = timed("pack of 300, " + type.toLowerCase(), 10, "GET", "/api/sites/" + site + "/packs/" + type + ".pdf", "");
            try (var document = Loader.loadPDF(pdf)) {
                System.out.printf("%d pages, %,d kB |%n", document.getNumberOfPages(), pdf.length / 1000);
            }
        }
        long five = Measure.number(db, "select id from site where code = 'FIVE'");
        Set<String> ids = new HashSet<>();
        Set<String> codes = new HashSet<>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("select id, replace(tag_code, '-', '') from endpoint where site_id = " + five
                        + " order by id limit " + TAGS)) {
            while (rows.next()) {
                ids.add(rows.getString(1));
                codes.add(rows.getString(2));
            }
        }
        byte[] pdf = timed("1 000 tags as PDF", 5, "POST", "/api/sites/" + five + "/labels.pdf",
                "{\"type\":\"TAG\",\"ids\":[" + String.join(",", ids)
                        + "],\"grid\":\"A4, 3 by 8, 70 x 37 mm\",\"first\":1,\"link\":\"http://192.168.100.100:8780/t/\"}");
        System.out.printf("%,d kB |%n", pdf.length / 1000);
        readBack(pdf, codes);
    }

    private static byte[] timed(String what, int wanted, String method, String path, String body) throws Exception {
        Measure.bytes(method, path, body);
        long start = System.nanoTime();
        byte[] bytes = Measure.bytes(method, path, body);
        System.out.printf("| %-38s | %10.2f s | wanted < %9d s | ", what, (System.nanoTime() - start) / 1e9, wanted);
        return bytes;
    }

    /** Cuts every label out of a picture at 200 dots an inch and reads both of its codes. */
    private static void readBack(byte[] pdf, Set<String> codes) throws Exception {
        var bars = new HashSet<String>();
        var matrices = new HashSet<String>();
        try (var document = Loader.loadPDF(pdf)) {
            var renderer = new PDFRenderer(document);
            for (int page = 0; page < document.getNumberOfPages(); page++) {
                var image = renderer.renderImageWithDPI(page, 200);
                for (int n = 0; n < 24; n++) {
                    int x = (int) (n % 3 * 70 * DOT), y = (int) ((0.5 + n / 3 * 37) * DOT);
                    int width = Math.min((int) (70 * DOT), image.getWidth() - x), high = (int) (28 * DOT);
                    matrices.add(read(new QRCodeReader(), image.getSubimage(x + width / 2, y, width / 2, high))
                            .replaceAll("(?i).*/t/", ""));
                    bars.add(read(new Code128Reader(), image.getSubimage(x, y + high, width, (int) (37 * DOT) - high)));
                }
            }
        }
        matrices.retainAll(codes);
        bars.retainAll(codes);
        System.out.printf(
                "| %-38s | %12d | wanted %13d | matrix codes; bar codes: %d |%n",
                "codes read back at 200 dots an inch",
                matrices.size(),
                TAGS,
                bars.size());
    }

    private static String read(Reader reader, BufferedImage image) {
        int[] dots = image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
        var source = new RGBLuminanceSource(image.getWidth(), image.getHeight(), dots);
        try {
            return reader.decode(new BinaryBitmap(new HybridBinarizer(source)), HARDER).getText();
        } catch (ReaderException none) {
            return "";
        }
    }

    /** A site with 300 devices of all kinds, proved. */
    private static long fill(Connection db) throws Exception {
        var kinds = Kinds.shipped().all();
        try (var statement = db.createStatement()) {
            statement.execute("insert into site (name, code, zone) values ('Three hundred', 'THREE', 'Europe/Berlin')");
            long site = Measure.number(db, "select id from site where code = 'THREE'");
            statement.execute("insert into segment (site_id, name, prefix, gateway) values (" + site
                    + ", 'Shop', '10.50.0.0/22', '10.50.0.1')");
            long segment = Measure.number(db, "select max(id) from segment");
            for (int n = 0; n < DEVICES; n++) {
                var kind = kinds.get(n % kinds.size());
                statement.execute("""
                        insert into endpoint (site_id, segment_id, kind, kind_version, name, address, serial, tag_code, station, status,
                        confirmed_at, confirmed_by) 
                        values (%d, %d, '%s', %d, '%s %6$d', '10.50.0.10'::inet + %6$d, 'S%6$d', 'THREE-%7$s%6$d-XX',
                        'HANDOVER', 'ACTIVE', now(), 'bench')""".formatted(
                                site, segment, kind.id(), kind.version(), kind.name(), n, kind.codeLetter()));
            }
            statement.execute("insert into sign_off (endpoint_id, grade, note, at, by) select id, 'FIRM', '', now(), 'bench'"
                    + " from endpoint where site_id = " + site);
            return site;
        }
    }
}
