package app.knottag.server.demo;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.Evidence;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.TypeSheet;
import app.knottag.core.worksheet.Worksheets;
import app.knottag.server.onboard.OnboardWork;
import app.knottag.server.onboard.StepWork;
import app.knottag.server.onboard.StepWork.Action;
import app.knottag.server.probe.StandIns;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.verify.Confirm;
import app.knottag.server.verify.Observations;
import app.knottag.server.worksheet.Sheets;
import java.time.Clock;
import java.util.HashMap;
import java.util.Map;
import java.util.function.LongSupplier;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Sets the demo's endpoints up through the services that people use. */
@Component
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoHands {

    private static final int MOST_TRIES = 5;

    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final StepWork steps;
    private final OnboardWork onboard;
    private final Confirm confirm;
    private final Observations observations;
    private final Sheets sheets;
    private final StandIns standIns;
    private final Clock clock;
    private final JsonMapper json;

    DemoHands(
            Endpoints endpoints,
            Runbooks runbooks,
            StepWork steps,
            OnboardWork onboard,
            Confirm confirm,
            Observations observations,
            Sheets sheets,
            StandIns standIns,
            Clock clock,
            JsonMapper json) {
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.steps = steps;
        this.onboard = onboard;
        this.confirm = confirm;
        this.observations = observations;
        this.sheets = sheets;
        this.standIns = standIns;
        this.clock = clock;
        this.json = json;
    }

    /** Completes every step before the named one, with what a careful person would have read. */
    void work(long endpoint, String before) {
        var kind = runbooks.runbook(endpoints.get(endpoint)).kind();
        for (Kind.Step step : kind.steps()) {
            if (step.key().equals(before)) return;
            var row = endpoints.get(endpoint);
            if (step.gate().type() == GateType.OPENINGS) close(endpoint);
            if (step.gate().type() == GateType.WORKSHEET) figures(endpoint, step.gate());
            act(
                    endpoint,
                    step.key(),
                    Action.COMPLETE,
                    CarefulHand.reads(kind, step, runbooks.plan(row), clock.instant()));
        }
    }

    private void figures(long endpoint, Kind.Gate gate) {
        var sheet = Worksheets.find(gate.sheet()).orElseThrow();
        sheets.keepForEndpoint(endpoint, sheet, 0, CarefulHand.figures(gate), DemoData.LEAD);
    }

    private void close(long endpoint) {
        for (var opening : runbooks.openings(endpoints.get(endpoint)))
            onboard.opening(
                    endpoint,
                    endpoints.get(endpoint).version(),
                    opening.key(),
                    OnboardWork.OpeningSaid.done(),
                    DemoData.LEAD);
    }

    /** Enters on the stand-in what its runbook says was entered, and restarts it where that was done too. */
    void enter(long endpoint, String device) {
        var row = endpoints.get(endpoint);
        var book = runbooks.runbook(row);
        boolean entered = done(book, GateType.TYPE_SHEET), restarted = done(book, GateType.ADDRESS_SHOWN);
        if (!entered || row.confirmedAt() != null) return;
        var typed = new HashMap<String, String>();
        var elsewhere = book.kind().menu().stream()
                .filter(Kind.MenuField::elsewhere)
                .map(Kind.MenuField::part)
                .toList();
        for (var line : TypeSheet.of(book.kind(), runbooks.plan(row)))
            if (!line.value().isEmpty() && !elsewhere.contains(line.part())) typed.put(line.label(), line.value());
        standIns.send("PUT", "/devices/" + device + "/menu", json.writeValueAsString(typed));
        if (restarted) standIns.send("POST", "/devices/" + device + "/restart", "");
    }

    /** Somebody types another address into the device, and restarts it. */
    void retype(long endpoint, String device, Ipv4Address address) {
        String label = runbooks.kind(endpoints.get(endpoint)).menu().stream()
                .filter(f -> f.field() == Kind.Field.ADDRESS)
                .map(Kind.MenuField::label)
                .findFirst()
                .orElseThrow();
        standIns.send(
                "PUT", "/devices/" + device + "/menu", json.writeValueAsString(Map.of(label, address.toString())));
        standIns.send("POST", "/devices/" + device + "/restart", "");
    }

    private static boolean done(Runbook book, GateType gate) {
        return book.kind().steps().stream()
                .anyMatch(s -> s.gate().type() == gate && book.record(s.key()).done());
    }

    void start(long endpoint, String step) {
        act(endpoint, step, Action.START, Map.of());
    }

    void failed(long endpoint, String step, Map<String, String> seen) {
        act(endpoint, step, Action.COMPLETE, seen);
    }

    void fact(long endpoint, Map<String, String> facts) {
        onboard.facts(endpoint, endpoints.get(endpoint).version(), facts, DemoData.LEAD);
    }

    private void act(long endpoint, String key, Action action, Map<String, String> evidence) {
        var act = new StepWork.Act(action, evidence, "", null, DemoData.LEAD);
        steps.act(endpoint, key, endpoints.get(endpoint).version(), act);
    }

    /** On a busy machine a stand-in that has just started may answer late; then it is asked again, as a person would. */
    void proved(long endpoint) {
        int tries = 0;
        do confirm.run(endpoint, DemoData.LEAD, LongSupplier::getAsLong);
        while (confirm.line(endpoints.get(endpoint)).failed() && ++tries < MOST_TRIES);
        for (var check : confirm.checks(endpoints.get(endpoint)))
            if (!check.byMachine() && check != Check.OFFICE)
                observations.keep(
                        endpoint, Observations.Saw.now(check, check.outcomes().get(0), Evidence.SEEN, DemoData.LEAD));
        confirm.signOff(endpoint, endpoints.get(endpoint).version(), "Seen at its own work", DemoData.LEAD);
    }
}
