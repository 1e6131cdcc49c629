package app.knottag.server.log;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Reads the log and checks that nothing was taken out of it. */
@RestController
class LogController {

    /** Whether the chain is whole, and where it first breaks. */
    record LogCheck(long entries, boolean whole, @Nullable Long firstBroken) {}

    private final Log log;

    LogController(Log log) {
        this.log = log;
    }

    @GetMapping("/api/sites/{siteId}/log")
    List<Log.LogLine> lines(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "9223372036854775807") long below,
            @RequestParam(required = false) Long endpointId) {
        return log.lines(siteId, endpointId, below);
    }

    @GetMapping("/api/log/check")
    LogCheck check() {
        Long broken = log.firstBroken();
        return new LogCheck(log.count(), broken == null, broken);
    }
}
