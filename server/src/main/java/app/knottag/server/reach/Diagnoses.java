package app.knottag.server.reach;

import app.knottag.core.kind.Kind;
import app.knottag.core.reach.Cause;
import app.knottag.core.reach.CauseBook;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Look;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Target;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.register.RegistryBook;
import app.knottag.server.runbook.Runbooks;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Weighs what was seen after a round, with what this site has shown before. */
@Component
class Diagnoses {

    private final RoundStore rounds;
    private final Runbooks runbooks;
    private final RegistryBook registries;
    private final Targets targets;
    private final Probes probes;

    Diagnoses(RoundStore rounds, Runbooks runbooks, RegistryBook registries, Targets targets, Probes probes) {
        this.targets = targets;
        this.probes = probes;
        this.rounds = rounds;
        this.runbooks = runbooks;
        this.registries = registries;
    }

    /** What was looked at after a round. */
    record Looked(List<RoundStore.LookRow> rows, List<Made> made, Set<Look> passed) {}

    Looked looked(long endpointId, long roundId) {
        var rows = rounds.looks(endpointId, roundId);
        var passed = new HashSet<Look>();
        rows.stream().filter(r -> r.outcome().isEmpty()).forEach(r -> passed.add(Look.valueOf(r.look())));
        var seen = rows.stream().filter(r -> !r.outcome().isEmpty()).toList();
        return new Looked(
                seen,
                seen.stream()
                        .map(r -> new Made(Look.valueOf(r.look()), r.outcome()))
                        .toList(),
                passed);
    }

    /** The endpoint as it is meant to be, with everything up to its service, from where it was looked at. */
    NetworkState scene(EndpointStore.Row e) {
        var kind = runbooks.kind(e);
        var target = targets.required(e);
        var traits = new NetworkState.Traits(
                registries.wanted(e), e.partnerId() != null, kind.service().tellsSerial(), Targets.callsOut(kind));
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
                        e.method().equals("RESERVED")));
    }

    /** How often each cause was found at a site. */
    Map<Cause, Integer> history(long siteId) {
        return rounds.found(siteId).stream()
                .collect(Collectors.toMap(
                        f -> Cause.valueOf(f.cause()),
                        RoundStore.FoundRow::times,
                        Integer::sum,
                        () -> new EnumMap<>(Cause.class)));
    }

    CauseBook book(long siteId) {
        return CauseBook.shipped().learned(history(siteId));
    }

    Diagnosis.Verdict verdict(EndpointStore.Row e, Looked looked) {
        return Diagnosis.of(scene(e), book(e.siteId()), looked.made(), looked.passed());
    }

    Kind kind(EndpointStore.Row e) {
        return runbooks.kind(e);
    }
}
