package app.knottag.server.handover;

import app.knottag.core.handover.Mark.Face;
import app.knottag.core.handover.PackType;
import app.knottag.server.handover.HandoverStore.SignedPack;
import app.knottag.server.handover.PackWork.Signed;
import app.knottag.server.handover.Signature.SignedPoint;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Idempotency;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** Packs of a site: looked at, signed, and fetched as they were signed. */
@RestController
class PackController {

    /** @param help whom the client calls */
    record PacksView(String help, List<SignedPack> signed) {}

    record HelpRequest(@NotNull String help) {}

    /** @param strokes what was drawn, each point from 0 to 1 of the field; none when somebody signs by name alone */
    record SignRequest(@NotNull String signer, @NotNull List<@NotNull List<@Valid @NotNull SignedPoint>> strokes) {}

    private final PackWork packs;
    private final Idempotency idempotency;

    PackController(PackWork packs, Idempotency idempotency) {
        this.packs = packs;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/sites/{siteId}/packs")
    PacksView all(@PathVariable long siteId) {
        var kept = packs.kept(siteId);
        return new PacksView(kept.help(), kept.signed());
    }

    @PutMapping("/api/sites/{siteId}/packs/help")
    PacksView help(@PathVariable long siteId, @Valid @RequestBody HelpRequest b, Principal by) {
        packs.keepHelp(siteId, FormReader.words("help", b.help(), false), by.getName());
        return all(siteId);
    }

    @GetMapping(path = "/api/sites/{siteId}/packs/{type}.html", produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<String> html(@PathVariable long siteId, @PathVariable PackType type, Principal by) {
        return ResponseEntity.ok()
                .header(
                        "Content-Security-Policy",
                        "default-src 'none'; style-src 'unsafe-inline'; font-src 'self'; img-src data:;"
                                + " frame-ancestors 'none'")
                .body(packs.html(siteId, type, by.getName()));
    }

    /** A font of the packs, for the browser that shows one. */
    @GetMapping(path = "/api/letters/{face}.ttf", produces = "font/ttf")
    ResponseEntity<byte[]> letters(@PathVariable Face face) {
        return ResponseEntity.ok()
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)))
                .body(Fonts.file(face));
    }

    @GetMapping(path = "/api/sites/{siteId}/packs/{type}.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> pdf(@PathVariable long siteId, @PathVariable PackType type, Principal by) {
        return file(packs.pdf(siteId, type, by.getName()), type.name().toLowerCase(Locale.ROOT) + ".pdf");
    }

    @PostMapping("/api/sites/{siteId}/packs/{type}/signature")
    SignedPack sign(
            @PathVariable long siteId,
            @PathVariable PackType type,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            @Valid @RequestBody SignRequest b,
            Principal by) {
        String signer = FormReader.words("signer", b.signer(), true);
        var asked = List.of(siteId, type, b);
        return idempotency
                .answer(by.getName(), key, asked, SignedPack.class)
                .orElseGet(() -> packs.sign(
                        siteId,
                        type,
                        new Signed(signer, b.strokes()),
                        by.getName(),
                        work -> idempotency.once(by.getName(), key, asked, SignedPack.class, work)));
    }

    @GetMapping(path = "/api/packs/{id}.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> signed(@PathVariable long id) {
        return file(packs.signed(id), "pack-" + id + ".pdf");
    }

    private static ResponseEntity<byte[]> file(byte[] bytes, String name) {
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + name + "\"")
                .body(bytes);
    }
}
