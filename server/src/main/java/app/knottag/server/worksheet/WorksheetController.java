package app.knottag.server.worksheet;

import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.SheetField;
import app.knottag.core.worksheet.Worksheets;
import app.knottag.server.web.Etags;
import app.knottag.server.worksheet.FiguresForm.FiguresRequest;
import app.knottag.server.worksheet.Sheets.FilledSheet;
import jakarta.validation.Valid;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** Worksheets over HTTP. Each filled one has a version of its own; 0 is one that nobody has filled in yet. */
@RestController
class WorksheetController {

    record WorksheetView(String key, String title, String about, List<SheetField> fields) {}

    record JudgementView(Judgement judgement, boolean holds) {}

    private final Sheets sheets;

    WorksheetController(Sheets sheets) {
        this.sheets = sheets;
    }

    @GetMapping("/api/worksheets")
    List<WorksheetView> all() {
        return Worksheets.all().stream()
                .map(w -> new WorksheetView(w.key(), w.title(), w.purpose(), w.fields()))
                .toList();
    }

    /** How figures would be judged, while they are keyed in; keeps nothing. */
    @PostMapping("/api/worksheets/{key}/judgement")
    JudgementView judge(@PathVariable String key, @Valid @RequestBody FiguresRequest b) {
        var judgement = FiguresForm.sheet(key).judge(FiguresForm.typed(b));
        return new JudgementView(judgement, judgement.holds());
    }

    @GetMapping("/api/endpoints/{id}/worksheets")
    List<FilledSheet> ofEndpoint(@PathVariable long id) {
        return sheets.ofEndpoint(id);
    }

    @PutMapping("/api/endpoints/{id}/worksheets/{key}")
    List<FilledSheet> keepForEndpoint(
            @PathVariable long id,
            @PathVariable String key,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody FiguresRequest b,
            Principal by) {
        var sheet = FiguresForm.sheet(key);
        sheets.keepForEndpoint(id, sheet, Etags.required(ifMatch), FiguresForm.read(sheet, b), by.getName());
        return sheets.ofEndpoint(id);
    }

    @GetMapping("/api/sites/{siteId}/worksheets")
    List<FilledSheet> ofSite(@PathVariable long siteId) {
        return sheets.ofSite(siteId);
    }

    @PutMapping("/api/sites/{siteId}/worksheets/{key}")
    List<FilledSheet> keepForSite(
            @PathVariable long siteId,
            @PathVariable String key,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody FiguresRequest b,
            Principal by) {
        var sheet = FiguresForm.sheet(key);
        sheets.keepForSite(siteId, sheet, Etags.required(ifMatch), FiguresForm.read(sheet, b), by.getName());
        return sheets.ofSite(siteId);
    }
}
