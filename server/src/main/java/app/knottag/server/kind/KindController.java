package app.knottag.server.kind;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.KindReader;
import app.knottag.core.kind.KindReader.KindFinding;
import app.knottag.core.kind.KindText;
import app.knottag.core.kind.Kinds;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Kinds of endpoint over HTTP: to choose one, and for a lead to write her own. */
@RestController
class KindController {

    /** A kind as the page needs it to choose one. */
    record KindView(
            String id,
            int version,
            boolean shipped,
            String name,
            String noun,
            String series,
            String labelPlace,
            String fixedBecause,
            int nightlyMinutes,
            boolean callsOut) {}

    record KindFileRequest(@NotNull String yaml) {}

    /** What a file would make: its steps in their worked-out order, or what is wrong with it. */
    record KindCheckView(List<KindFinding> findings, List<String> steps) {}

    private final Kinds kinds;
    private final KindBook book;

    KindController(Kinds kinds, KindBook book) {
        this.kinds = kinds;
        this.book = book;
    }

    @GetMapping("/api/kinds")
    List<KindView> all() {
        return kinds.all().stream().map(KindController::view).toList();
    }

    @GetMapping(value = "/api/kinds/{id}/file", produces = "application/yaml")
    ResponseEntity<String> file(@PathVariable String id, @RequestParam(required = false) Integer version) {
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/yaml;charset=UTF-8"))
                .header("Content-Disposition", "attachment; filename=\"" + safe(id) + ".yaml\"")
                .body(book.text(id, version));
    }

    /** A kind written out for those who read no YAML. */
    @GetMapping("/api/kinds/{id}/recipe")
    KindText recipe(@PathVariable String id) {
        return KindText.of(kinds.get(id));
    }

    private static String safe(String id) {
        return id.replaceAll("[^a-z0-9-]", "");
    }

    @GetMapping("/api/kinds/{id}/versions")
    List<Integer> versions(@PathVariable String id) {
        return book.versions(id);
    }

    @PostMapping("/api/kinds/check")
    KindCheckView check(@Valid @RequestBody KindFileRequest body) {
        var reading = KindReader.read(body.yaml());
        return new KindCheckView(
                book.check(body.yaml()),
                reading.kind() == null
                        ? List.of()
                        : reading.kind().steps().stream().map(Kind.Step::title).toList());
    }

    @PostMapping("/api/kinds")
    @ResponseStatus(HttpStatus.CREATED)
    KindView keep(@Valid @RequestBody KindFileRequest body, Principal by) {
        return view(book.keep(body.yaml(), by.getName()));
    }

    private static KindView view(Kind kind) {
        return new KindView(
                kind.id(),
                kind.version(),
                Kinds.SHIPPED.contains(kind.id()),
                kind.name(),
                kind.noun(),
                kind.series(),
                kind.labelPlace(),
                kind.fixedBecause(),
                kind.nightlyMinutes(),
                kind.callsOut());
    }
}
