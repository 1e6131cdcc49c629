package app.knottag.server.log;

import app.knottag.server.log.LogStore.CountRow;
import app.knottag.server.log.LogStore.Wanted;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Reads the log, gives it out, and checks that nothing was taken out of it. */
@RestController
class LogController {

    /** Whether the chain is whole, and where it first breaks. */
    record LogCheck(long entries, boolean whole, @Nullable Long firstBroken) {}

    /** Who and what there is in the log of a site. */
    record LogChoices(List<CountRow> people, List<CountRow> actions) {}

    private final Log log;
    private final Logbook book;

    LogController(Log log, Logbook book) {
        this.log = log;
        this.book = book;
    }

    @GetMapping("/api/sites/{siteId}/log")
    List<Log.LogLine> lines(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "9223372036854775807") long below,
            @RequestParam(required = false) @Nullable Long endpointId) {
        return book.find(siteId, Wanted.lately(below, endpointId));
    }

    /** @param upTo the last day that counts, by the clock of the site */
    @GetMapping("/api/sites/{siteId}/logbook")
    List<Log.LogLine> find(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "9223372036854775807") long below,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "") String person,
            @RequestParam(defaultValue = "") String action,
            @RequestParam(required = false) @Nullable LocalDate upTo) {
        return book.find(siteId, new Wanted(Logbook.pattern(q), person, action, null, upTo, below));
    }

    @GetMapping("/api/sites/{siteId}/log/choices")
    LogChoices choices(@PathVariable long siteId) {
        return new LogChoices(book.people(siteId), book.actions(siteId));
    }

    @GetMapping(path = "/api/sites/{siteId}/log.csv", produces = "text/csv;charset=UTF-8")
    ResponseEntity<StreamingResponseBody> csv(@PathVariable long siteId) {
        return file("log.csv").body(out -> book.csv(siteId, out));
    }

    @GetMapping(path = "/api/sites/{siteId}/log.json", produces = "application/json")
    ResponseEntity<StreamingResponseBody> json(@PathVariable long siteId) {
        return file("log.json").body(out -> book.json(Optional.of(siteId), out));
    }

    /** The log of all sites, whose entries are one chain. */
    @GetMapping(path = "/api/log.json", produces = "application/json")
    ResponseEntity<StreamingResponseBody> whole() {
        return file("log.json").body(out -> book.json(Optional.empty(), out));
    }

    private static ResponseEntity.BodyBuilder file(String name) {
        return ResponseEntity.ok().header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"");
    }

    @GetMapping("/api/log/check")
    LogCheck check() {
        var broken = Optional.ofNullable(log.firstBroken());
        return new LogCheck(log.count(), broken.isEmpty(), broken.orElse(null));
    }
}
