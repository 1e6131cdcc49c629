package app.knottag.server.demo;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.GateType;
import app.knottag.server.plan.Endpoints;
import app.knottag.server.reach.Confirm;
import app.knottag.server.runbook.OnboardWork;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.runbook.StepWork;
import app.knottag.server.runbook.StepWork.Action;
import java.time.Clock;
import java.util.Map;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.stereotype.Component;

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
    private final Clock clock;

    DemoHands(
            Endpoints endpoints, Runbooks runbooks, StepWork steps, OnboardWork onboard, Confirm confirm, Clock clock) {
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.steps = steps;
        this.onboard = onboard;
        this.confirm = confirm;
        this.clock = clock;
    }

    /** Ties every step before the named one, with what a careful person would have read. */
    void work(long endpoint, String before) {
        var kind = runbooks.runbook(endpoints.get(endpoint)).kind();
        for (Kind.Step step : kind.steps()) {
            if (step.key().equals(before)) return;
            var row = endpoints.get(endpoint);
            if (step.gate().type() == GateType.OPENINGS) close(endpoint);
            act(endpoint, step.key(), Action.TIE, CarefulHand.reads(kind, step, runbooks.plan(row), clock.instant()));
        }
    }

    private void close(long endpoint) {
        for (var opening : runbooks.openings(endpoints.get(endpoint)))
            onboard.opening(
                    endpoint, endpoints.get(endpoint).version(), opening.key(), OnboardWork.closed(), DemoData.LEAD);
    }

    void start(long endpoint, String step) {
        act(endpoint, step, Action.START, Map.of());
    }

    void restarted(long endpoint, String step) {
        act(endpoint, step, Action.RESTARTED, Map.of());
    }

    void failed(long endpoint, String step, Map<String, String> seen) {
        act(endpoint, step, Action.TIE, seen);
    }

    void fact(long endpoint, Map<String, String> facts) {
        onboard.facts(endpoint, endpoints.get(endpoint).version(), facts, DemoData.LEAD);
    }

    private void act(long endpoint, String key, Action action, Map<String, String> evidence) {
        steps.act(endpoint, key, endpoints.get(endpoint).version(), action, evidence, null, DemoData.LEAD);
    }

    /** On a busy machine a stand-in that has just started may answer late; then it is asked again, as a person would. */
    void proved(long endpoint) {
        int tries = 0;
        do confirm.round(endpoint, DemoData.LEAD);
        while (!confirm.latest(endpoint).orElseThrow().holds() && ++tries < MOST_TRIES);
        confirm.signOff(endpoint, endpoints.get(endpoint).version(), "Seen at its own work", DemoData.LEAD);
    }
}
