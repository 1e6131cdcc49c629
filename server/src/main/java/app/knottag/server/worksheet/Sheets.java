package app.knottag.server.worksheet;

import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Worksheet;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.runbook.EndpointContext.Beside;
import app.knottag.core.runbook.SheetGate;
import app.knottag.core.worksheet.Worksheets;
import app.knottag.server.change.Consequences;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WorksheetStore;
import app.knottag.server.record.WorksheetStore.WorksheetRow;
import app.knottag.server.web.Etags;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Keeps what is keyed in on worksheets, and judges it again whenever it is looked at. */
@Service
public class Sheets {

    /**
     * A worksheet with its figures.
     *
     * @param step title of the step that waits for it, or empty
     * @param counted fields that were counted at another step
     */
    public record FilledSheet(
            String sheet,
            String title,
            String step,
            Map<String, String> figures,
            Map<String, String> counted,
            Judgement judgement,
            boolean holds,
            int version,
            @Nullable String by,
            @Nullable Instant at) {}

    private final Log log;
    private final Clock clock;
    private final JsonMapper json;
    private final Sites sites;
    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final WorksheetStore store;
    private final Consequences consequences;

    Sheets(
            Log log,
            Clock clock,
            JsonMapper json,
            Sites sites,
            Endpoints endpoints,
            Runbooks runbooks,
            WorksheetStore store,
            Consequences consequences) {
        this.log = log;
        this.clock = clock;
        this.json = json;
        this.sites = sites;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.store = store;
        this.consequences = consequences;
    }

    /** Returns those that steps of its runbook wait for, in their order, and then those that somebody filled in besides. */
    List<FilledSheet> ofEndpoint(long id) {
        var endpoint = endpoints.get(id);
        var rows = store.ofEndpoint(id).stream().collect(Collectors.toMap(WorksheetRow::sheet, r -> r));
        var filled = new ArrayList<FilledSheet>();
        var beside = runbooks.wholePlan(endpoint).around().beside();
        for (var step : gates(endpoint)) {
            String key = step.gate().sheet();
            filled.add(ofStep(step, beside, Optional.ofNullable(rows.remove(key))));
        }
        rows.values().stream().sorted((a, b) -> a.sheet().compareTo(b.sheet())).forEach(r -> filled.add(alone(r)));
        return filled;
    }

    private List<Kind.Step> gates(EndpointStore.Row endpoint) {
        return runbooks.recipe(endpoint).kind().steps().stream()
                .filter(s -> s.gate().type() == GateType.WORKSHEET)
                .toList();
    }

    private FilledSheet ofStep(Kind.Step step, Beside beside, Optional<WorksheetRow> row) {
        var gate = step.gate();
        return filled(
                FiguresForm.sheet(gate.sheet()),
                step.title(),
                SheetGate.figures(gate, beside),
                SheetGate.counted(gate, beside),
                row);
    }

    private FilledSheet alone(WorksheetRow row) {
        return filled(FiguresForm.sheet(row.sheet()), "", runbooks.figures(row), Map.of(), Optional.of(row));
    }

    private static FilledSheet filled(
            Worksheet sheet,
            String step,
            Map<String, String> figures,
            Map<String, String> counted,
            Optional<WorksheetRow> row) {
        var judgement = sheet.judge(figures);
        return new FilledSheet(
                sheet.key(),
                sheet.title(),
                step,
                figures,
                counted,
                judgement,
                judgement.holds(),
                row.map(WorksheetRow::version).orElse(0),
                row.map(WorksheetRow::by).orElse(null),
                row.map(WorksheetRow::at).orElse(null));
    }

    /** Returns those that were filled in for the site as a whole. */
    List<FilledSheet> ofSite(long siteId) {
        sites.site(siteId);
        return store.ofSite(siteId).stream()
                .filter(r -> Worksheets.find(r.sheet()).isPresent())
                .map(this::alone)
                .toList();
    }

    /** Keeps the figures of an endpoint; a step that rested on others and no longer goes is opened again. */
    @Transactional
    public void keepForEndpoint(long id, Worksheet sheet, int expected, Map<String, String> figures, String by) {
        var endpoint = endpoints.get(id);
        keep(endpoint.siteId(), id, sheet, expected, own(endpoint, sheet, figures), by);
        consequences.figured(endpoint);
    }

    /** What was counted at another step stands, and is not kept a second time beside it. */
    private Map<String, String> own(EndpointStore.Row endpoint, Worksheet sheet, Map<String, String> figures) {
        var own = new LinkedHashMap<>(figures);
        var beside = runbooks.wholePlan(endpoint).around().beside();
        for (var step : gates(endpoint))
            if (step.gate().sheet().equals(sheet.key()))
                own.keySet().removeAll(SheetGate.counted(step.gate(), beside).keySet());
        return own;
    }

    /** Keeps the figures of a site. */
    @Transactional
    public void keepForSite(long siteId, Worksheet sheet, int expected, Map<String, String> figures, String by) {
        sites.site(siteId);
        keep(siteId, null, sheet, expected, figures, by);
    }

    private void keep(
            long siteId,
            @Nullable Long endpointId,
            Worksheet sheet,
            int expected,
            Map<String, String> figures,
            String by) {
        var row = new WorksheetRow(
                siteId,
                endpointId,
                sheet.key(),
                new Json(json.writeValueAsString(figures)),
                expected,
                by,
                clock.instant());
        if ((expected == 0 ? store.add(row) : store.change(row)) == 0) throw Etags.stale();
        log.write(Log.entry(by, "worksheet “" + sheet.title() + "”")
                .at(siteId, endpointId)
                .after(figures));
    }
}
