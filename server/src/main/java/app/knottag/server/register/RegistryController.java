package app.knottag.server.register;

import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.intake.PlainText;
import app.knottag.core.register.CleanUp;
import app.knottag.core.register.Registration.State;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryForm;
import app.knottag.server.change.Hand;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Sites;
import app.knottag.server.register.EntryForm.ActRequest;
import app.knottag.server.register.EntryForm.EntryRequest;
import app.knottag.server.register.EntryForm.HandOverRequest;
import app.knottag.server.register.RegistryFactsForm.RegistryRequest;
import app.knottag.server.register.RegistryLines.RegistryLine;
import app.knottag.server.register.RegistryLists.HandOverView;
import app.knottag.server.register.RegistryLists.HoldingsView;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Registries and what they hold, over HTTP. */
@RestController
class RegistryController {

    /** A registry with how many of its units are where. */
    record RegistryView(
            long id,
            String name,
            Registry.Type type,
            String typeWords,
            @Nullable Long segmentId,
            @Nullable Medium medium,
            Set<String> kinds,
            Registry.Rules rules,
            String lifetimeWords,
            Map<State, Long> counts,
            int toCorrect,
            @Nullable Instant handedOverAt,
            @Nullable String handedOverBy) {}

    record FormView(RegistryForm form, String words, boolean needsAddress) {}

    record UsualView(Registry.Type type, String words, Registry.Rules rules) {}

    record Choices(List<FormView> forms, List<UsualView> types) {}

    record RegisterKept(long id) {}

    record CleanUpItem(
            CleanUp.Reason reason, long registration, int version, long endpointId, String message, String wayOut) {}

    record CleanUpView(List<CleanUpItem> items, List<String> owners, List<String> left) {}

    record OwnerRequest(@NotNull String name, boolean left) {}

    private final Registrations registrations;
    private final RegistryLines shown;
    private final RegistryLists lists;
    private final Registries kept;
    private final RegistryFactsForm form;
    private final RegistryBook book;
    private final Housekeeping housekeeping;
    private final Sites sites;
    private final Idempotency idempotency;

    RegistryController(
            Registrations registrations,
            RegistryLines shown,
            RegistryLists lists,
            Registries kept,
            RegistryFactsForm form,
            RegistryBook book,
            Housekeeping housekeeping,
            Sites sites,
            Idempotency idempotency) {
        this.registrations = registrations;
        this.shown = shown;
        this.lists = lists;
        this.kept = kept;
        this.form = form;
        this.book = book;
        this.housekeeping = housekeeping;
        this.sites = sites;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/registry-choices")
    Choices choices() {
        return new Choices(
                Arrays.stream(RegistryForm.values())
                        .map(f -> new FormView(f, f.words(), f.needsAddress()))
                        .toList(),
                Arrays.stream(Registry.Type.values())
                        .map(t -> new UsualView(t, t.words(), Registry.Rules.usual(t)))
                        .toList());
    }

    @GetMapping("/api/sites/{siteId}/registries")
    List<RegistryView> registries(@PathVariable long siteId) {
        sites.site(siteId);
        var site = book.site(siteId);
        return site.registries().values().stream()
                .map(r -> view(r, shown.counts(site, r)))
                .toList();
    }

    private RegistryView view(Registry r, RegistryLines.Counts counts) {
        var last = lists.lastHandOver(r.id());
        return new RegistryView(
                r.id(),
                r.name(),
                r.type(),
                r.type().words(),
                r.segmentId().orElse(null),
                r.medium().orElse(null),
                r.kinds(),
                r.rules(),
                r.rules().lifetime().map(Object::toString).orElse(""),
                counts.states(),
                counts.toCorrect(),
                last.map(h -> h.at()).orElse(null),
                last.map(h -> h.by()).orElse(null));
    }

    @GetMapping("/api/registries/{id}/lines")
    List<RegistryLine> lines(@PathVariable long id) {
        var site = book.site(shown.registry(id).siteId());
        return shown.lines(site, site.registries().get(id));
    }

    @GetMapping("/api/endpoints/{id}/registrations")
    List<RegistryLine> ofEndpoint(@PathVariable long id) {
        var site = book.site(housekeeping.siteOf(id));
        var lines = new ArrayList<RegistryLine>();
        for (var registry : site.registries().values()) lines.addAll(shown.lines(site, registry, u -> u.id() == id));
        return lines;
    }

    @PutMapping("/api/sites/{siteId}/registries/{id}")
    RegisterKept keep(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody RegistryRequest b,
            Principal by) {
        return new RegisterKept(
                kept.keep(new Hand(siteId, Etags.required(ifMatch), by.getName()), id, form.read(siteId, b)));
    }

    @DeleteMapping("/api/sites/{siteId}/registries/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            Principal by) {
        kept.remove(new Hand(siteId, Etags.required(ifMatch), by.getName()), id);
    }

    /** How an entry would be judged, while it is typed; changes nothing. */
    @PostMapping("/api/registries/{id}/judgement")
    RegistryLine judge(@PathVariable long id, @Valid @RequestBody EntryRequest b) {
        return shown.proposal(id, EntryForm.read(b));
    }

    @PostMapping("/api/registries/{id}/registrations")
    @ResponseStatus(HttpStatus.CREATED)
    RegisterKept add(
            @PathVariable long id,
            @Valid @RequestBody EntryRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        return RegistryConflicts.guard(() -> idempotency.once(
                by.getName(),
                key,
                List.of(id, b),
                RegisterKept.class,
                () -> new RegisterKept(registrations.add(id, EntryForm.read(b), by.getName()))));
    }

    @PostMapping("/api/registrations/{id}/acts")
    RegistryLine act(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody ActRequest b,
            Principal by) {
        return RegistryConflicts.guard(() -> {
            registrations.act(id, Etags.required(ifMatch), EntryForm.read(b), by.getName());
            return shown.view(id);
        });
    }

    @GetMapping("/api/registries/{id}/list")
    ResponseEntity<String> list(
            @PathVariable long id,
            @RequestParam RegistryForm form,
            @RequestParam(defaultValue = "false") boolean onlyChanges) {
        var view = lists.list(id, form, onlyChanges);
        var type = switch (form) {
            case CSV -> MediaType.parseMediaType("text/csv;charset=UTF-8");
            case JSON, RESERVATION_JSON -> MediaType.APPLICATION_JSON;
            default -> MediaType.parseMediaType("text/plain;charset=UTF-8");
        };
        return ResponseEntity.ok()
                .contentType(type)
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + view.file() + "\"")
                .body(view.text());
    }

    @PostMapping("/api/registries/{id}/hand-overs")
    HandOverView handOver(
            @PathVariable long id,
            @Valid @RequestBody HandOverRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        return RegistryConflicts.guard(() -> Boolean.TRUE.equals(b.preview())
                ? lists.handOver(id, EntryForm.read(b), by.getName())
                : idempotency.once(
                        by.getName(),
                        key,
                        List.of(id, b),
                        HandOverView.class,
                        () -> lists.handOver(id, EntryForm.read(b), by.getName())));
    }

    /** Takes what a registry really holds, in any form, with a preview. */
    @PostMapping(
            path = "/api/registries/{id}/holdings",
            consumes = {MediaType.APPLICATION_OCTET_STREAM_VALUE, MediaType.TEXT_PLAIN_VALUE})
    HoldingsView holdings(
            @PathVariable long id,
            @RequestParam RegistryForm form,
            @RequestParam(defaultValue = "true") boolean preview,
            @RequestBody byte[] body,
            Principal by) {
        String text = PlainText.decode(body).match(t -> t, why -> {
            throw Problem.field("text", "unreadable", why);
        });
        return RegistryConflicts.guard(() -> lists.holdings(id, form, text, preview, by.getName()));
    }

    @GetMapping("/api/sites/{siteId}/clean-up")
    CleanUpView cleanUp(@PathVariable long siteId) {
        sites.site(siteId);
        return new CleanUpView(
                housekeeping.cleanUp(siteId).stream()
                        .map(i -> new CleanUpItem(
                                i.item().reason(),
                                i.item().registration(),
                                i.version(),
                                i.item().unit(),
                                i.item().message(),
                                i.item().wayOut()))
                        .toList(),
                housekeeping.owners(siteId),
                housekeeping.ownersLeft(siteId));
    }

    @PutMapping("/api/sites/{siteId}/owners")
    CleanUpView owner(@PathVariable long siteId, @Valid @RequestBody OwnerRequest b, Principal by) {
        housekeeping.owner(siteId, b.name(), b.left(), by.getName());
        return cleanUp(siteId);
    }
}
