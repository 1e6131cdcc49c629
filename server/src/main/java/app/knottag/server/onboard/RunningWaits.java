package app.knottag.server.onboard;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.BootPattern;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.today.Notice;
import app.knottag.server.onboard.RunbookController.RunningView;
import app.knottag.server.record.ByClock;
import app.knottag.server.record.Noticing;
import app.knottag.server.record.StepStore;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Waits that run, at whatever site. */
@Component
class RunningWaits implements Noticing, ByClock {

    private final StepStore steps;
    private final Kinds kinds;

    RunningWaits(StepStore steps, Kinds kinds) {
        this.steps = steps;
        this.kinds = kinds;
    }

    /** A step that is gone from its kind, or a kind that is gone, still runs for whoever began it. */
    private Optional<Kind.Step> step(StepStore.RunningRow r) {
        return kinds.find(r.kind(), r.kindVersion()).stream()
                .flatMap(k -> k.steps().stream())
                .filter(s -> s.key().equals(r.key()))
                .findFirst();
    }

    List<RunningView> views(Instant now) {
        return steps.running(Scope.now().list()).stream().map(r -> view(r, now)).toList();
    }

    private RunningView view(StepStore.RunningRow r, Instant now) {
        var step = step(r);
        var wait = step.flatMap(Kind.Step::waiting);
        var pace = wait.map(w -> Runbook.pace(w, r.startedAt(), now)).orElse(Runbook.Pace.USUAL);
        return new RunningView(
                r.siteId(),
                r.site(),
                r.endpointId(),
                r.endpoint(),
                step.map(Kind.Step::title).orElse(r.key()),
                wait.map(Kind.Wait::lookFor).orElse(""),
                r.startedAt(),
                wait.map(Kind.Wait::shortest).orElse(0),
                wait.map(Kind.Wait::usual).orElse(0),
                wait.map(Kind.Wait::longest).orElse(0),
                pace,
                wait.map(w -> BootPattern.of(w, r.restarts(), pace).words()).orElse(""),
                now);
    }

    @Override
    public Set<Standing> standing(Instant now) {
        return views(now).stream()
                .map(v -> new Standing(v.siteId(), v.endpointId(), v.step() + " " + v.pace()))
                .collect(Collectors.toSet());
    }

    @Override
    public List<Notice> notices(Instant now, Scope scope) {
        return steps.running(scope.list()).stream()
                .flatMap(r -> step(r).stream()
                        .flatMap(s -> s.waiting().stream()
                                .map(w -> Notice.wait(
                                        new Notice.Site(r.siteId(), r.site()),
                                        r.endpointId(),
                                        r.endpoint(),
                                        s.title(),
                                        w,
                                        r.startedAt(),
                                        now))))
                .toList();
    }
}
