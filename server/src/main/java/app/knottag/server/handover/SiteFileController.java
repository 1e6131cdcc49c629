package app.knottag.server.handover;

import java.security.Principal;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** A whole site as one file, for leads; docs/site-file.md says what is in it. */
@RestController
class SiteFileController {

    /** The site that was taken in. */
    record SiteTaken(long id) {}

    private final SiteFiles files;

    SiteFileController(SiteFiles files) {
        this.files = files;
    }

    @GetMapping(path = "/api/sites/{siteId}/site.zip", produces = "application/zip")
    ResponseEntity<byte[]> write(@PathVariable long siteId) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"site.zip\"")
                .body(files.write(siteId));
    }

    @PostMapping(
            path = "/api/site-file",
            consumes = {"application/zip", MediaType.APPLICATION_OCTET_STREAM_VALUE})
    SiteTaken read(@RequestBody byte[] body, Principal by) {
        return new SiteTaken(files.read(body, by.getName()));
    }
}
