package app.knottag.server.verify;

import app.knottag.core.hardware.Interface;
import app.knottag.core.kind.Kind;
import app.knottag.core.plan.Method;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.PacketWay;
import app.knottag.core.reach.Pasted;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Question;
import app.knottag.core.reach.Target;
import app.knottag.server.log.Log;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Weighs what was seen after a run, with what this site has shown before. */
@Component
class Diagnoses {

    /** A change of so many days ago still shows. */
    static final Duration LATELY = Duration.ofDays(14);

    private final CheckRunStore checkRuns;
    private final Runbooks runbooks;
    private final RegistryBook registries;
    private final Targets targets;
    private final Probes probes;
    private final EndpointStore endpoints;
    private final CaseStore cases;
    private final Confirm confirm;
    private final Log log;
    private final Clock clock;

    Diagnoses(
            CheckRunStore checkRuns,
            Runbooks runbooks,
            RegistryBook registries,
            Targets targets,
            Probes probes,
            EndpointStore endpoints,
            CaseStore cases,
            Confirm confirm,
            Log log,
            Clock clock) {
        this.endpoints = endpoints;
        this.cases = cases;
        this.confirm = confirm;
        this.log = log;
        this.clock = clock;
        this.targets = targets;
        this.probes = probes;
        this.checkRuns = checkRuns;
        this.runbooks = runbooks;
        this.registries = registries;
    }

    /** What was looked at after a run. */
    record Looked(List<CheckRunStore.AnswerRow> rows, List<Made> made, Set<Question> passed) {}

    Looked looked(long endpointId, long checkRunId) {
        var rows = checkRuns.questions(endpointId, checkRunId);
        var passed = new HashSet<Question>();
        rows.stream().filter(r -> r.outcome() == Outcome.CANNOT_BE_TOLD).forEach(r -> passed.add(r.question()));
        var seen =
                rows.stream().filter(r -> r.outcome() != Outcome.CANNOT_BE_TOLD).toList();
        return new Looked(
                seen,
                seen.stream()
                        .map(r -> new Made(r.question(), r.outcome(), r.evidence()))
                        .toList(),
                passed);
    }

    /** The endpoint as it is meant to be, with everything up to its service, from where it was looked at. */
    NetworkState scene(EndpointStore.Row e) {
        var kind = runbooks.kind(e);
        var target = targets.required(e);
        var traits = new NetworkState.Traits(
                registries.wanted(e),
                e.partnerId() != null,
                kind.service().tellsSerial(),
                kind.callsOut(),
                joined(kind, e));
        var own = probes.here().addresses();
        return NetworkState.intended(
                traits,
                new NetworkState.Layout(
                        target.segment().prefix(),
                        target.segment().gateway(),
                        target.address(),
                        target.segment().pools(),
                        target.partner().map(Target.Partner::address),
                        target.resolvers().stream().findFirst(),
                        own.stream()
                                .filter(target.segment().prefix()::contains)
                                .findFirst()
                                .or(() -> own.stream().findFirst()),
                        e.method() == Method.RESERVED));
    }

    /** A MAC alone is put down as wired, so that says nothing; an outlet or a port does. */
    private Joined joined(Kind kind, EndpointStore.Row e) {
        var medium = endpoints.medium(e.id());
        if (kind.wireless() || medium == Interface.Medium.WIRELESS) return Joined.WIRELESS;
        boolean wired = medium != null && medium != Interface.Medium.WIRED;
        return wired || !e.outlet().isEmpty() || !e.switchPort().isEmpty() ? Joined.CABLE : Joined.UNKNOWN;
    }

    /** The book as it was learned at a site from what people said had mended things there. */
    FaultBook book(long siteId) {
        return learned(checkRuns.found(siteId));
    }

    private static FaultBook learned(List<CheckRunStore.FoundRow> found) {
        var times = new EnumMap<Fault, Integer>(Fault.class);
        found.forEach(f -> times.merge(f.fault(), 1, Integer::sum));
        return FaultBook.shipped().learned(times);
    }

    /**
     * Where the search for one endpoint stands, with what it was weighed.
     *
     * @param learned what was said to have mended things at the site, latest first
     * @param lately what was changed at the endpoint in the last days, latest first
     */
    record Searched(
            Diagnosis.Verdict verdict,
            List<PacketWay.Stretch> way,
            List<CheckRunStore.FoundRow> learned,
            List<CaseStore.ChangeRow> lately) {}

    Searched search(EndpointStore.Row e, Looked looked) {
        var found = checkRuns.found(e.siteId());
        var lately =
                cases.lately(e.siteId(), e.segmentId(), e.id(), clock.instant().minus(LATELY));
        var changes = lately.stream().map(CaseStore.ChangeRow::what).collect(Collectors.toSet());
        var book = learned(found).after(changes);
        var scene = scene(e);
        var verdict = Diagnosis.of(scene, book, looked.made(), looked.passed());
        return new Searched(verdict, PacketWay.of(scene, book, looked.made(), verdict), found, lately);
    }

    Kind kind(EndpointStore.Row e) {
        return runbooks.kind(e);
    }

    /** The latest run, when it fails. */
    CheckRunStore.Row failed(EndpointStore.Row endpoint) {
        var run = checkRuns.latest(endpoint.id());
        if (run == null || !confirm.line(endpoint).failed())
            throw Problem.of(HttpStatus.CONFLICT, "nothing-failed", "The latest checks do not fail. Run them first.");
        return run;
    }

    /** Keeps what somebody saw; also that it cannot be told. */
    @Transactional
    public void saw(EndpointStore.Row endpoint, Question question, Outcome outcome, Evidence how, String by) {
        checkRuns.keepAnswer(endpoint.id(), failed(endpoint).id(), question, outcome, how, by);
        log.write(Log.entry(by, "looked: " + question.words())
                .at(endpoint.siteId(), endpoint.id())
                .after(
                        outcome == Outcome.CANNOT_BE_TOLD
                                ? "cannot tell"
                                : FaultBook.shipped().words(question, outcome)));
    }

    /** What was pasted about an endpoint; {@code weighed} when it was taken into a search for the cause. */
    record Taken(Pasted.Reading read, boolean weighed) {}

    /** Reads what another tool or the device said, and keeps what it shows while something fails. The text is not kept. */
    @Transactional
    public Taken pasted(EndpointStore.Row endpoint, String text, String by) {
        var read = Pasted.read(text, targets.required(endpoint), endpoint.switchPort(), clock.instant());
        var run = checkRuns.latest(endpoint.id());
        boolean weighed = run != null
                && !read.questions().isEmpty()
                && confirm.line(endpoint).failed();
        if (weighed)
            for (var m : read.questions())
                checkRuns.keepAnswer(endpoint.id(), run.id(), m.question(), m.outcome(), Evidence.TOOL, by);
        log.write(Log.entry(by, "pasted " + read.form().words())
                .at(endpoint.siteId(), endpoint.id())
                .after(read.findings()));
        return new Taken(read, weighed);
    }
}
