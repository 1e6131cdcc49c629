package app.knottag.server.register;

import app.knottag.core.register.RegisterFile;
import app.knottag.core.register.RegisterRow;
import app.knottag.server.web.Problem;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The register of a site as a file, out and in. */
@RestController
class RegisterController {

    private static final int MOST_BYTES = 4_000_000;

    /** The register as JSON; the schema is docs/register.schema.json. */
    record RegisterDocument(String format, String site, String code, List<RegisterRow> endpoints) {}

    /** What an import made, or would make in a preview, or why it made nothing. */
    record ImportReport(
            boolean preview,
            int endpoints,
            List<String> segments,
            List<String> names,
            List<RegisterFile.Problem> problems) {}

    private final Register register;

    RegisterController(Register register) {
        this.register = register;
    }

    @GetMapping(path = "/api/sites/{siteId}/register.csv", produces = "text/csv;charset=UTF-8")
    ResponseEntity<String> csv(@PathVariable long siteId) {
        return file(register.code(siteId) + "-register.csv", RegisterFile.write(register.rows(siteId)));
    }

    @GetMapping("/api/sites/{siteId}/register.json")
    ResponseEntity<RegisterDocument> json(@PathVariable long siteId) {
        String code = register.code(siteId);
        return file(
                code + "-register.json",
                new RegisterDocument("knot-tag-register/1", register.name(siteId), code, register.rows(siteId)));
    }

    private static <T> ResponseEntity<T> file(String name, T body) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .body(body);
    }

    @PostMapping(
            path = "/api/sites/{siteId}/import",
            consumes = {"text/csv", MediaType.APPLICATION_OCTET_STREAM_VALUE, MediaType.TEXT_PLAIN_VALUE})
    ImportReport take(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "true") boolean preview,
            @RequestBody byte[] body,
            Principal by) {
        if (body.length > MOST_BYTES)
            throw Problem.of(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "file-too-large",
                    "The file has " + body.length / 1_000_000 + " MB; at most 4 MB are read. Split it.");
        var parsed = RegisterFile.read(new String(body, StandardCharsets.UTF_8), register.kinds());
        var problems = parsed.problems().isEmpty() ? register.problems(siteId, parsed.rows()) : parsed.problems();
        var segments = problems.isEmpty() ? register.newSegments(siteId, parsed.rows()) : List.<String>of();
        var names = problems.isEmpty()
                ? parsed.rows().stream().map(RegisterRow::name).limit(200).toList()
                : List.<String>of();
        if (!preview && problems.isEmpty()) register.take(siteId, parsed.rows(), by.getName());
        return new ImportReport(preview, problems.isEmpty() ? parsed.rows().size() : 0, segments, names, problems);
    }
}
