package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.LabelGrid;
import app.knottag.core.handover.LabelType;
import app.knottag.core.handover.Mark;
import app.knottag.core.handover.Mark.Face;
import app.knottag.server.handover.GridForm.GridRequest;
import app.knottag.server.handover.LabelWork.Wanted;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Labels: looked at before they are printed, and printed. */
@RestController
class LabelsController {

    private static final Pattern LINK = Pattern.compile("https?://[A-Za-z0-9.:\\[\\]-]{1,60}/t/");
    private static final int SHOWN = 3;

    /** @param link what a matrix code leads to before the tag code, as this page was reached */
    record LabelRequest(
            @NotNull LabelType type,
            @NotNull List<Long> ids,
            @NotNull String grid,
            int first,
            @NotNull String link) {}

    record LabelWords(double x, double y, double size, Face face, String text) {}

    record LabelLine(double x1, double y1, double x2, double y2, boolean dashed) {}

    /** One label as it lies on the sheet, in millimetres; {@code dark} are the areas of its codes. */
    record PlacedLabel(Area box, List<LabelWords> words, List<LabelLine> lines, List<String> dark) {}

    /** What cannot stand on some labels as it should. */
    record LabelSaid(List<String> names, String said) {}

    /** The first sheets as they would be printed. */
    record LabelSheetView(
            LabelGrid grid, int sheets, int labels, List<LabelSaid> said, List<List<PlacedLabel>> shown) {}

    record GridView(@Nullable Long id, int labels, LabelGrid grid) {}

    private final LabelWork work;

    LabelsController(LabelWork work) {
        this.work = work;
    }

    @GetMapping("/api/label-grids")
    List<GridView> grids() {
        return work.grids().stream()
                .map(g -> new GridView(g.id().orElse(null), g.grid().labels(), g.grid()))
                .toList();
    }

    @PostMapping("/api/label-grids")
    List<GridView> keepGrid(@Valid @RequestBody GridRequest b, Principal by) {
        work.keepGrid(GridForm.read(b), by.getName());
        return grids();
    }

    @DeleteMapping("/api/label-grids/{id}")
    void dropGrid(@PathVariable long id, Principal by) {
        work.dropGrid(id, by.getName());
    }

    @PostMapping("/api/sites/{siteId}/labels/preview")
    LabelSheetView preview(@PathVariable long siteId, @Valid @RequestBody LabelRequest b) {
        var sheet = work.draw(siteId, wanted(b)).sheet();
        return new LabelSheetView(
                sheet.grid(),
                sheet.sheets(),
                sheet.labels().size(),
                said(sheet),
                IntStream.range(0, Math.min(SHOWN, sheet.sheets()))
                        .mapToObj(n ->
                                sheet.on(n).stream().map(LabelsController::view).toList())
                        .toList());
    }

    private static List<LabelSaid> said(LabelSheet sheet) {
        var together = new LinkedHashMap<String, Set<String>>();
        for (var label : sheet.labels())
            for (String said : label.drawn().said())
                together.computeIfAbsent(said, s -> new LinkedHashSet<>()).add(label.name());
        return together.entrySet().stream()
                .map(e -> new LabelSaid(List.copyOf(e.getValue()), e.getKey()))
                .toList();
    }

    private static PlacedLabel view(LabelSheet.Placed label) {
        return new PlacedLabel(
                label.box(),
                of(label, Mark.Words.class)
                        .map(w -> new LabelWords(w.x(), w.y(), w.size(), w.face(), w.text()))
                        .toList(),
                of(label, Mark.Line.class)
                        .map(l -> new LabelLine(l.x1(), l.y1(), l.x2(), l.y2(), l.dashed()))
                        .toList(),
                Stream.concat(of(label, Mark.Matrix.class), of(label, Mark.Bars.class))
                        .map(SheetSvg::path)
                        .toList());
    }

    private static <T extends Mark> Stream<T> of(LabelSheet.Placed label, Class<T> type) {
        return label.drawn().marks().stream().filter(type::isInstance).map(type::cast);
    }

    /** Prints: what is sent is on record as printed. */
    @PostMapping(path = "/api/sites/{siteId}/labels.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(@PathVariable long siteId, @Valid @RequestBody LabelRequest b, Principal by) {
        var print = work.draw(siteId, wanted(b));
        byte[] bytes = SheetPdf.write(print.sheet(), b.type().words());
        work.printed(siteId, print.tags(), by.getName());
        return file(bytes, "labels.pdf");
    }

    @PostMapping(path = "/api/sites/{siteId}/labels.svg", produces = "image/svg+xml")
    ResponseEntity<byte[]> svg(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "1") int sheet,
            @Valid @RequestBody LabelRequest b,
            Principal by) {
        var print = work.draw(siteId, wanted(b));
        if (sheet < 1 || sheet > print.sheet().sheets())
            throw Problem.notFound("There are " + print.sheet().sheets() + " sheets.");
        byte[] bytes = SheetSvg.write(print.sheet(), sheet - 1).getBytes(StandardCharsets.UTF_8);
        work.printed(
                siteId,
                print.tags().stream().filter(t -> t.sheet() == sheet - 1).toList(),
                by.getName());
        return file(bytes, "labels-" + sheet + ".svg");
    }

    private static ResponseEntity<byte[]> file(byte[] bytes, String name) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .body(bytes);
    }

    private static Wanted wanted(LabelRequest b) {
        if (!LINK.matcher(b.link()).matches())
            throw Problem.field("link", "no-link", "The link must be the address of this page followed by /t/.");
        return new Wanted(b.type(), new LinkedHashSet<>(b.ids()), b.grid(), b.first(), b.link());
    }
}
