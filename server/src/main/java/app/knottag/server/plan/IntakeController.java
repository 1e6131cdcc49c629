package app.knottag.server.plan;

import app.knottag.core.intake.PlainText;
import app.knottag.core.intake.Sheet;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.server.change.Conflicts;
import app.knottag.server.plan.Intake.IntakeView;
import app.knottag.server.plan.Intake.Wish;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.security.Principal;
import java.util.EnumMap;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Lists and sheets, pasted or as a file, over HTTP. */
@RestController
class IntakeController {

    private final Intake intake;
    private final Sites sites;
    private final Conflicts conflicts;

    IntakeController(Intake intake, Sites sites, Conflicts conflicts) {
        this.intake = intake;
        this.sites = sites;
        this.conflicts = conflicts;
    }

    /** Which column means what, as “NAME:0,ADDRESS:2”; columns are counted from 0. */
    private static Map<Sheet.Column, Integer> columns(String text) {
        var columns = new EnumMap<Sheet.Column, Integer>(Sheet.Column.class);
        for (String pair : text.split(",")) {
            if (pair.isBlank()) continue;
            String[] halves = pair.split(":");
            if (halves.length != 2 || !halves[1].matches("[0-9]{1,3}"))
                throw Problem.field("columns", "bad-columns", "“" + pair + "” is no column such as NAME:0.");
            try {
                columns.put(Sheet.Column.valueOf(halves[0]), Integer.parseInt(halves[1]));
            } catch (IllegalArgumentException e) {
                throw Problem.field("columns", "bad-columns", "There is no column " + halves[0] + ".");
            }
        }
        return columns;
    }

    @PostMapping(
            path = "/api/sites/{siteId}/intakes",
            consumes = {"text/csv", MediaType.APPLICATION_OCTET_STREAM_VALUE, MediaType.TEXT_PLAIN_VALUE})
    IntakeView take(
            @PathVariable long siteId,
            @RequestParam Source source,
            @RequestParam(defaultValue = "true") boolean preview,
            @RequestParam(defaultValue = "true") boolean make,
            @RequestParam(required = false) Long home,
            @RequestParam(defaultValue = "") String columns,
            @RequestBody byte[] body,
            Principal by) {
        sites.site(siteId);
        if (home != null) sites.segmentOf(siteId, home);
        String text = PlainText.decode(body).match(t -> t, why -> {
            throw Problem.of(
                    body.length > PlainText.MOST_BYTES
                            ? HttpStatus.CONTENT_TOO_LARGE
                            : HttpStatus.UNPROCESSABLE_CONTENT,
                    "no-text",
                    why);
        });
        var wish = new Wish(source, make, home, columns(columns));
        return preview
                ? intake.preview(siteId, text, wish)
                : conflicts.guard(siteId, 0, () -> intake.take(siteId, text, wish, by.getName()));
    }
}
