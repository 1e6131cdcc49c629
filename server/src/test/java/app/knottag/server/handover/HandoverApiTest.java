package app.knottag.server.handover;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.handover.PackType;
import app.knottag.core.handover.TagCode;
import app.knottag.server.Api;
import app.knottag.server.Hands;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import com.google.zxing.BinaryBitmap;
import com.google.zxing.DecodeHintType;
import com.google.zxing.MultiFormatReader;
import com.google.zxing.NotFoundException;
import com.google.zxing.RGBLuminanceSource;
import com.google.zxing.common.HybridBinarizer;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import javax.imageio.ImageIO;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.rendering.PDFRenderer;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.pdfbox.text.TextPosition;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What is left before a hand-over, tags on paper, packs and their signatures, the log as a file. */
class HandoverApiTest {

    private static final String LINK = "http://127.0.0.1:8780/t/";
    private final Api lead = Running.as(Role.LEAD);
    private final Api technician = Running.as(Role.TECHNICIAN);
    private long[] site;
    private long first;
    private long second;

    @BeforeEach
    void twoTills() throws SQLException {
        site = Running.site(lead);
        first = Running.till(lead, site, 1);
        second = Running.till(lead, site, 2);
        for (long id : List.of(first, second)) {
            new Hands(lead, id).close("menu-code");
            for (var step : lead.get("/api/endpoints/" + id + "/runbook").json().get("steps"))
                Running.write(
                        "insert into step (endpoint_id, key, status, ended_at, evidence, findings, reason, by) values ("
                                + id + ", '" + step.get("key").asString()
                                + "', 'PASSED', now(), '{}', '[]', '', 'lead')");
            Running.write("insert into sign_off (endpoint_id, grade, note, at, by) values (" + id
                    + ", 'FIRM', '', now(), 'lead')");
            Running.write(
                    "update endpoint set station = 'HANDOVER', status = 'ACTIVE', confirmed_at = now(), confirmed_by = 'lead' where id = "
                            + id);
        }
    }

    private JsonNode left() {
        return lead.get("/api/sites/" + site[0] + "/handover").expect(200).json();
    }

    private static List<String> acts(JsonNode of) {
        return StreamSupport.stream(of.get("acts").spliterator(), false)
                .filter(a -> !a.has("passed") || a.get("passed").isNull())
                .map(a -> a.get("what").asString())
                .toList();
    }

    private JsonNode endpoint(long id) {
        return StreamSupport.stream(left().get("endpoints").spliterator(), false)
                .filter(e -> e.get("id").asLong() == id)
                .findFirst()
                .orElseThrow();
    }

    private static String wanted(String type, String grid, int first, Long... ids) {
        return "{'type':'" + type + "','ids':" + List.of(ids) + ",'grid':'" + grid + "','first':" + first + ",'link':'"
                + LINK + "'}";
    }

    private byte[] print(String type, String grid, int from, Long... ids) {
        return technician.file("POST", "/api/sites/" + site[0] + "/labels.pdf", wanted(type, grid, from, ids));
    }

    private JsonNode logged(String action) {
        return lead.get("/api/sites/" + site[0] + "/logbook?action=" + action.replace(" ", "%20"))
                .expect(200)
                .json();
    }

    private void hang(long id) {
        technician
                .post("/api/sites/" + site[0] + "/tags/hung", "{'endpointIds':[" + id + "]}")
                .expect(200);
    }

    private void office(long id, boolean reached) {
        Running.as(Role.OFFICE)
                .post("/api/endpoints/" + id + "/office-word", "{'reached':" + reached + "}")
                .expect(200);
    }

    @DisplayName(
            "From the sign-off to the hand-over: the office's word, the tag printed and hung, and it hangs wrong once a fact is another")
    @Test
    void fromSignOffToReady() throws SQLException {
        assertThat(acts(left())).containsExactly("OFFICE", "TAG_PRINT");
        Running.write("insert into check_run (endpoint_id, at, by, failed, results) values (" + first
                + ", now(), 'lead', false, '[]')");
        office(first, false);
        assertThat(endpoint(first).get("acts").get(0).get("key").asString()).isEqualTo("office:apart");
        office(first, true);
        assertThat(acts(endpoint(first))).containsExactly("TAG_PRINT");
        technician
                .post("/api/sites/" + site[0] + "/tags/hung", "{'endpointIds':[" + first + "]}")
                .refused(422, "not-printed");
        print("TAG", "A4, 3 by 8, 70 x 37 mm", 1, first);
        assertThat(acts(endpoint(first))).containsExactly("TAG_HANG");
        hang(first);
        assertThat(endpoint(first).get("ready").asBoolean()).isTrue();
        assertThat(left().get("ready").asInt()).isEqualTo(1);
        long foreign = Running.till(lead, Running.site(lead), 1);
        hang(first);
        hang(foreign);
        assertThat(logged("hung the tag"))
                .as("once, and of none of another site")
                .hasSize(1);
        technician
                .seen(first)
                .patch("/api/endpoints/" + first, "{'serial':'OC2-AAAA-0009'}")
                .expect(200);
        assertThat(endpoint(first).get("tagWrong").get(0).asString())
                .isEqualTo("Serial: the tag says OC2-AAAA-0001, it is OC2-AAAA-0009.");
        var log = lead.get("/api/sites/" + site[0] + "/logbook?q=printed%20the%20tag")
                .expect(200)
                .json();
        assertThat(log).hasSize(1);
        print("TAG", "A4, 3 by 8, 70 x 37 mm", 1, first);
        assertThat(lead.get("/api/sites/" + site[0] + "/logbook?action=printed%20the%20tag%20again")
                        .json())
                .as("a reprint says so")
                .hasSize(1);
    }

    @DisplayName(
            "Only a lead lets something pass, with a reason, and just what is to be done now; it stands in the pack")
    @Test
    void letPass() throws IOException {
        String pass = "/api/sites/" + site[0] + "/let-pass";
        technician.post(pass, letPass("There is none", "office")).refused(403, "not-allowed");
        lead.post(pass, letPass(" ", "office")).refused(422, "bad-words");
        lead.post(pass, letPass("There is none", "office", "office:apart")).refused(422, "not-open");
        lead.post("/api/sites/" + (site[0] + 1) + "/let-pass", letPass("There is none", "office"))
                .refused(404, "not-found");
        assertThat(acts(endpoint(first))).as("all of them or none").containsExactly("OFFICE", "TAG_PRINT");
        lead.post(pass, letPass("The client has no office", "office")).expect(200);
        String path = "/api/endpoints/" + first + "/let-pass";
        assertThat(acts(endpoint(first))).containsExactly("TAG_PRINT");
        assertThat(text(pack("CLIENT"))).contains("Left undone", "The client has no office");
        technician.delete(path + "/office").refused(403, "not-allowed");
        lead.delete(path + "/office").expect(200);
        lead.delete(path + "/office").refused(404, "not-found");
        assertThat(acts(endpoint(first))).containsExactly("OFFICE", "TAG_PRINT");
    }

    private String letPass(String reason, String... keys) {
        return "{'reason':'" + reason + "','acts':["
                + Stream.of(keys)
                        .map(k -> "{'endpointId':" + first + ",'key':'" + k + "'}")
                        .collect(Collectors.joining(","))
                + "]}";
    }

    /** Texts of a page with the place of their first letter, in mm from the upper left corner. */
    private static Map<String, double[]> texts(byte[] pdf, int page) throws IOException {
        var found = new java.util.LinkedHashMap<String, double[]>();
        try (var document = Loader.loadPDF(pdf)) {
            var stripper = new PDFTextStripper() {
                @Override
                protected void writeString(String text, List<TextPosition> letters) {
                    var at = letters.get(0);
                    found.putIfAbsent(text, new double[] {at.getXDirAdj() / 72 * 25.4, at.getYDirAdj() / 72 * 25.4});
                }
            };
            stripper.setStartPage(page);
            stripper.setEndPage(page);
            stripper.getText(document);
        }
        return found;
    }

    private static String text(byte[] pdf) throws IOException {
        try (var document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }
    }

    private static String read(BufferedImage image) {
        int w = image.getWidth(), h = image.getHeight();
        try {
            return new MultiFormatReader()
                    .decode(
                            new BinaryBitmap(new HybridBinarizer(
                                    new RGBLuminanceSource(w, h, image.getRGB(0, 0, w, h, null, 0, w)))),
                            Map.of(DecodeHintType.TRY_HARDER, true))
                    .getText();
        } catch (NotFoundException none) {
            return "nothing";
        }
    }

    @DisplayName(
            "On paper a tag lies where its grid says, within 0.2 mm, and both of its codes are read back at 200 dots an inch")
    @Test
    void onPaper() throws IOException {
        String grid = "A4, 2 by 7, 99.1 x 38.1 mm";
        byte[] pdf = print("TAG", grid, 14, first, second);
        String code = lead.get("/api/endpoints/" + first).json().get("tagCode").asString();
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(document.getNumberOfPages())
                    .as("the last place of the first sheet, then the next")
                    .isEqualTo(2);
            var box = document.getPage(0).getMediaBox();
            assertThat(box.getWidth() / 72 * 25.4).isCloseTo(210, Offset.offset(0.02));
            assertThat(box.getHeight() / 72 * 25.4).isCloseTo(297, Offset.offset(0.02));
            for (var name : document.getPage(0).getResources().getFontNames()) {
                PDFont font = document.getPage(0).getResources().getFont(name);
                assertThat(font.isEmbedded()).as(font.getName()).isTrue();
            }
            var image = new PDFRenderer(document).renderImageWithDPI(0, 200);
            double dot = 200 / 25.4, left = 4.65 + 99.1 + 2.5, top = 15.15 + 6 * 38.1;
            var label = image.getSubimage((int) (left * dot), (int) (top * dot), (int) (99 * dot), (int) (38 * dot));
            var bytes = new ByteArrayOutputStream();
            ImageIO.write(label, "png", bytes);
            assertThat(technician
                            .sendBytes("POST", "/api/tag-picture", "image/png", bytes.toByteArray())
                            .expect(200)
                            .json()
                            .get("id")
                            .asLong())
                    .as("a picture of the tag")
                    .isEqualTo(first);
            assertThat(read(label.getSubimage(label.getWidth() / 2, 0, label.getWidth() / 2, (int) (28 * dot))))
                    .isEqualTo((LINK + TagCode.bare(code)).toUpperCase(Locale.ROOT));
            assertThat(read(label.getSubimage(
                            0, (int) (28 * dot), label.getWidth(), label.getHeight() - (int) (28 * dot))))
                    .isEqualTo(TagCode.bare(code));
        }
        var texts = texts(pdf, 1);
        assertThat(texts).containsKey("Till 1");
        assertThat(texts.get("Till 1")[0]).isCloseTo(4.65 + 99.1 + 2.5 + 1.8, Offset.offset(0.2));
        assertThat(text(pdf)).contains("10.7.0.51", "00:00:5E:00:53:01", code);
        String svg = new String(
                technician.file(
                        "POST", "/api/sites/" + site[0] + "/labels.svg?sheet=1", wanted("TAG", grid, 14, first)),
                StandardCharsets.UTF_8);
        assertThat(svg).contains("width=\"210mm\" height=\"297mm\"", "<text x=\"108.05\"", ">Till 1</text>");
    }

    @ParameterizedTest(name = "{0} on {1} from {2}: {3}")
    @CsvSource({
        "TAG, 'A4, 3 by 8, 70 x 37 mm', 25, no-such-place",
        "TAG, 'A4, 3 by 8, 70 x 37 mm', 0, no-such-place",
        "TAG, Another, 1, no-such-grid",
        "CABLE_FLAG, 'A4, 3 by 8, 70 x 37 mm', 1, nothing-to-print",
        "PORT, 'A4, 3 by 8, 70 x 37 mm', 1, nothing-to-print",
        "PLACE, 'A4, 3 by 8, 70 x 37 mm', 1, nothing-to-print",
    })
    void refusesWhatCannotBePrinted(String type, String grid, int from, String code) {
        lead.post("/api/sites/" + site[0] + "/labels/preview", wanted(type, grid, from))
                .refused(422, code);
    }

    @DisplayName("A sheet of the shop's own: lengths with their units, and what does not fit is told with its field")
    @Test
    void ownGrid() {
        String grid =
                "{'name':'Ours','paperWidth':'21 cm','paperHeight':'297','columns':'%s','rows':'4','left':'5,5','top':'10',"
                        + "'labelWidth':'%s','labelHeight':'60','acrossGap':'0','downGap':'2 mm'}";
        assertThat(lead.post("/api/label-grids", grid, "2", "110")
                        .refused(422, "does-not-fit")
                        .json()
                        .get("errors")
                        .get(0)
                        .get("pointer")
                        .asString())
                .isEqualTo("/columns");
        assertThat(lead.post("/api/label-grids", grid, "1.5", "90")
                        .refused(422, "not-whole")
                        .detail())
                .contains("1.5");
        lead.post("/api/label-grids", grid, "2", "90 kg").expect(422);
        lead.post("/api/label-grids", grid.replace("Ours", "Roll, 62 x 40 mm"), "2", "90")
                .refused(422, "name-taken");
        var all = lead.post("/api/label-grids", grid, "2", "90").expect(200).json();
        var own = all.get(all.size() - 1);
        assertThat(own.get("grid").get("left").asDouble()).isEqualTo(5.5);
        assertThat(own.get("labels").asInt()).isEqualTo(8);
        technician.delete("/api/label-grids/" + own.get("id").asLong()).refused(403, "not-allowed");
        lead.delete("/api/label-grids/" + own.get("id").asLong()).expect(200);
    }

    @DisplayName("A code leads to its endpoint however it is typed; of a wrong one it is said what may have been meant")
    @Test
    void readsTags() {
        String code = lead.get("/api/endpoints/" + first).json().get("tagCode").asString();
        for (String typed : List.of(
                code, code.toLowerCase(Locale.ROOT), TagCode.bare(code), LINK.replace(":", "%3A") + TagCode.bare(code)))
            assertThat(lead.get("/api/tag?code=" + typed)
                            .expect(200)
                            .json()
                            .get("id")
                            .asLong())
                    .isEqualTo(first);
        String wrong = code.substring(0, code.length() - 1) + (code.endsWith("A") ? "B" : "A");
        var told = lead.get("/api/tag?code=" + wrong).refused(409, "code-does-not-hold");
        assertThat(told.json().get("meant").get(0).get("row").get("id").asLong())
                .isEqualTo(first);
        assertThat(told.detail())
                .contains("Did you mean " + code + " of Till 1? Then at place "
                        + TagCode.bare(code).length());
        lead.get("/api/tag?code=" + TagCode.of("ZZ", "T1")).refused(404, "not-found");
        lead.get("/api/tag?code=%20").refused(404, "no-code");
        lead.sendBytes("POST", "/api/tag-picture", "image/png", new byte[] {1, 2})
                .refused(422, "no-picture");
    }

    private byte[] pack(String type) {
        return lead.file("GET", "/api/sites/" + site[0] + "/packs/" + type + ".pdf", "");
    }

    private static boolean hasText(PDDocument document, int page, String wanted) throws IOException {
        var stripper = new PDFTextStripper();
        stripper.setStartPage(page);
        stripper.setEndPage(page);
        return stripper.getText(document).replaceAll("\\s+", "").contains(wanted);
    }

    @DisplayName(
            "The technician's pack: A4, real text, bookmarks, fonts within, and the head of the log's chain on the last page")
    @Test
    void technicianPack() throws IOException, SQLException {
        lead.put("/api/sites/" + site[0] + "/packs/help", "{'help':'Imke, 0555 0100'}")
                .expect(200);
        String opening = "/api/endpoints/" + first + "/runbook/openings/menu-code";
        lead.seen(first)
                .put(opening, "{'closed':true,'note':'password: tulip99'}")
                .refused(422, "bad-words");
        lead.seen(first)
                .put(opening, "{'closed':true,'note':'Key cabinet, drawer 2'}")
                .expect(200);
        byte[] pdf = pack("TECHNICIAN");
        assertThat(text(pdf)).contains("the new one is kept: Key cabinet, drawer 2");
        try (var document = Loader.loadPDF(pdf)) {
            assertThat(document.getPage(0).getMediaBox().getWidth()).isCloseTo(595.3f, Offset.offset(0.5f));
            var marks = new ArrayList<String>();
            for (var m : document.getDocumentCatalog().getDocumentOutline().children()) marks.add(m.getTitle());
            assertThat(marks)
                    .contains(
                            "Networks",
                            "Addresses",
                            "Rules of the firewall",
                            "Device by device",
                            "What a reset does",
                            "When one is silent");
            for (var name : document.getPage(0).getResources().getFontNames())
                assertThat(document.getPage(0).getResources().getFont(name).isEmbedded())
                        .isTrue();
            try (var db = Running.database("knot_owner");
                    var head = db.createStatement().executeQuery("select id, encode(hash, 'hex') from log_head")) {
                head.next();
                assertThat(hasText(document, document.getNumberOfPages(), head.getString(2)))
                        .as("log entry " + head.getLong(1))
                        .isTrue();
            }
        }
        assertThat(text(pdf))
                .contains("10.7.0.0/24", "10.7.0.51", "00:00:5E:00:53:02", "Firm: every check was made and holds")
                .doesNotContain("Imke, 0555 0100");
        assertThat(text(pack("CLIENT")))
                .contains("Imke, 0555 0100", "Takes card payments for the till beside it.", "start the payment again")
                .doesNotContain("00:00:5E");
        assertThat(lead.get("/api/sites/" + site[0] + "/packs/OFFICE.html")
                        .expect(200)
                        .body())
                .contains("<td>Till 1</td>", "10.7.0.51");
        lead.get("/api/sites/" + site[0] + "/packs/OTHER.pdf").expect(400);
    }

    @DisplayName("A signed pack hands over what is ready, once, and is kept as it was whatever happens later")
    @Test
    void signs() throws IOException, SQLException {
        String path = "/api/sites/" + site[0] + "/packs/CLIENT/signature";
        String signature = "{'signer':'Bea Lindqvist','strokes':[[{'x':0.1,'y':0.2},{'x':0.5,'y':0.7}]]}";
        technician.post(path, signature).refused(409, "nothing-ready");
        technician.post(path, "{'signer':' ','strokes':[]}").refused(422, "bad-words");
        lead.post("/api/sites/" + site[0] + "/let-pass", letPass("Agreed with the client", "office", "tag_print"))
                .expect(200);
        technician.post(path, "{'signer':'Bea','strokes':[[{'x':1.5,'y':0}]]}").refused(422, "outside");
        assertThatThrownBy(() -> Running.bean(PackWork.class)
                        .sign(site[0], PackType.CLIENT, new PackWork.Signed("Bea", List.of()), "technician", work -> {
                            lead.put("/api/sites/" + site[0] + "/packs/help", "{'help':'Somebody else'}")
                                    .expect(200);
                            return work.get();
                        }))
                .as("somebody changed something while the paper was made")
                .hasMessageStartingWith("Somebody changed something of this site");
        assertThat(endpoint(first).get("station").asString()).isEqualTo("HANDOVER");
        technician.key = "signed-once-" + site[0];
        long id = technician.post(path, signature).expect(200).json().get("id").asLong();
        assertThat(technician.post(path, signature).expect(200).json().get("id").asLong())
                .as("sent twice")
                .isEqualTo(id);
        technician.key = null;
        assertThat(endpoint(first).get("station").asString()).isEqualTo("DONE");
        assertThat(logged("handed over")).as("of the ready one alone").hasSize(1);
        assertThat(logged("pack signed").get(0).get("after").get("signer").asString())
                .isEqualTo("Bea Lindqvist");
        assertThat(endpoint(second).get("station").asString())
                .as("not ready, so not handed over")
                .isEqualTo("HANDOVER");
        byte[] kept = lead.file("GET", "/api/packs/" + id + ".pdf", "");
        assertThat(text(kept)).contains("Signed: Bea Lindqvist", "Agreed with the client", "Not finished yet");
        var line = lead.get("/api/sites/" + site[0] + "/packs")
                .json()
                .get("signed")
                .get(0);
        assertThat(line.get("sha256").asString()).isEqualTo(sha256(kept));
        lead.seen(first).patch("/api/endpoints/" + first, "{'name':'Till one'}").expect(200);
        assertThat(lead.file("GET", "/api/packs/" + id + ".pdf", "")).isEqualTo(kept);
        lead.seen(first)
                .patch(
                        "/api/endpoints/" + first,
                        "{'address':'" + Ipv4Address.parse("10.7.0.60") + "','reason':'Moved'}")
                .expect(200);
        assertThat(endpoint(first).get("handedOverAt").isNull())
                .as("another address undoes the proof, and with it the hand-over")
                .isTrue();
    }

    private static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String text(JsonNode value, String missing) {
        return value.isNull() ? missing : value.asString();
    }

    @DisplayName("The log as a file: every hash comes out again by the rule that is described, and none is left out")
    @Test
    void logAsFile() {
        technician.get("/api/log.json").refused(403, "not-allowed");
        var entries = lead.get("/api/log.json").expect(200).json().get("entries");
        String last = sha256("knot tag".getBytes(StandardCharsets.UTF_8));
        for (var e : entries) {
            var parts = new ArrayList<>(List.of(
                    text(e.get("id"), ""),
                    text(e.get("at"), ""),
                    text(e.get("person"), ""),
                    text(e.get("siteId"), "-"),
                    text(e.get("endpointId"), "-"),
                    text(e.get("action"), ""),
                    text(e.get("before"), "-"),
                    text(e.get("after"), "-"),
                    text(e.get("reason"), "")));
            if (!e.get("personId").isNull()) parts.add(text(e.get("personId"), ""));
            byte[] before = HexFormat.of().parseHex(last),
                    rest = String.join("\u001f", parts).getBytes(StandardCharsets.UTF_8);
            byte[] all = new byte[before.length + rest.length];
            System.arraycopy(before, 0, all, 0, before.length);
            System.arraycopy(rest, 0, all, before.length, rest.length);
            last = sha256(all);
            assertThat(e.get("hash").asString()).as(e.toString()).isEqualTo(last);
        }
        assertThat(entries.size()).isPositive();
        String csv = lead.get("/api/sites/" + site[0] + "/log.csv").expect(200).body();
        assertThat(csv).startsWith("id,at,person,site,endpoint,action,before,after,reason,person_id,previous,hash\r\n");
        var own = lead.get("/api/sites/" + site[0] + "/log.json").json().get("entries");
        assertThat(own)
                .hasSizeLessThan(entries.size())
                .allMatch(e -> e.get("siteId").asLong() == site[0]);
    }

    @DisplayName("The logbook finds by fragment, person, kind and day, and an odd fragment is no pattern")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "'q=10.7.0.51', true",
        "'q=10_7', false",
        "'q=%25', false",
        "'q=Till%201&person=lead', true",
        "'q=Till%201&person=technician', false",
        "'action=endpoint%20added&q=AAAA-0002', true",
        "'upTo=2020-01-01', false",
        "'upTo=9000-01-01', true",
    })
    void logbook(String query, boolean found) {
        var lines = lead.get("/api/sites/" + site[0] + "/logbook?" + query)
                .expect(200)
                .json();
        assertThat(lines.isEmpty()).as(lines.toString()).isNotEqualTo(found);
        var choices =
                lead.get("/api/sites/" + site[0] + "/log/choices").expect(200).json();
        assertThat(IntStream.range(0, choices.get("people").size())
                        .mapToObj(n -> choices.get("people").get(n).get("what").asString())
                        .collect(Collectors.toList()))
                .contains("lead");
    }
}
