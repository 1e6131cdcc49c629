package app.knottag.server.reach;

import app.knottag.core.kind.Kind;
import app.knottag.core.reach.Cause;
import app.knottag.core.reach.CauseBook;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Look;
import app.knottag.core.reach.Scene;
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

    Diagnoses(RoundStore rounds, Runbooks runbooks, RegistryBook registries) {
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

    /** The endpoint as it is meant to be, with everything up to its service. */
    Scene scene(EndpointStore.Row e) {
        var kind = runbooks.kind(e);
        return Scene.intended(new Scene.Traits(
                registries.wanted(e), e.partnerId() != null, kind.service().tellsSerial(), Targets.callsOut(kind)));
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
