package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.plan.Conflict;
import app.knottag.core.plan.Conflict.Code;
import app.knottag.core.plan.Conflict.Severity;
import app.knottag.core.plan.SitePlan;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What an audit found, as far as it speaks against the plan: the plan judges what was seen by no rules of its own. */
public final class SeenConflicts {

    private final Map<Long, PlannedEndpoint> endpoints = new HashMap<>();
    private final Map<Ipv4Address, PlannedEndpoint> planned = new HashMap<>();

    private final Set<Long> twice;

    private SeenConflicts(SitePlan plan, List<Finding> findings) {
        for (var e : plan.endpoints()) {
            endpoints.put(e.id(), e);
            e.address().ifPresent(a -> planned.put(a, e));
        }
        twice = findings.stream()
                .filter(f -> f.standing() == Standing.DUPLICATE)
                .map(Finding::endpoint)
                .collect(Collectors.toSet());
    }

    /** Returns the conflicts in the order of the findings. */
    public static List<Conflict> of(SitePlan plan, List<Finding> findings) {
        var conflicts = new SeenConflicts(plan, findings);
        return findings.stream().flatMap(f -> conflicts.of(f).stream()).toList();
    }

    private Optional<Conflict> of(Finding f) {
        return switch (f.standing()) {
            case DUPLICATE -> own(f, Severity.BROKEN, Code.ADDRESS_SEEN_TWICE);
            case MOVED, AUTOMATIC ->
                own(f, inTheWay(f).isPresent() ? Severity.BROKEN : Severity.RISK, Code.SEEN_ELSEWHERE);
            case OTHER_INTERFACE -> own(f, Severity.RISK, Code.OTHER_INTERFACE);
            // What never was there yet is not gone.
            case SILENT -> f.stay().flatMap(s -> own(f, Severity.UNTIDY, Code.NOT_SEEN));
            case STRANGER ->
                inTheWay(f)
                        .filter(e -> e.mac().isPresent() && !twice.contains(e.id()))
                        .map(e -> on(e, Severity.BROKEN, Code.OTHER_HOLDS_ADDRESS, f));
            case GUEST, KNOWN, UNSEEN, AS_RECORDED -> Optional.empty();
        };
    }

    /** Whose address it has, when that is not its own. */
    private Optional<PlannedEndpoint> inTheWay(Finding f) {
        return f.stay().flatMap(s -> Optional.ofNullable(planned.get(s.at()))).filter(e -> e.id() != f.endpoint());
    }

    private Optional<Conflict> own(Finding f, Severity severity, Code code) {
        return Optional.ofNullable(endpoints.get(f.endpoint())).map(e -> on(e, severity, code, f));
    }

    private static Conflict on(PlannedEndpoint e, Severity severity, Code code, Finding f) {
        String says =
                f.says().substring(0, 1).toLowerCase(Locale.ROOT) + f.says().substring(1);
        return Conflict.of(severity, code, f.name() + ": " + says, f.act())
                .on(e.id())
                .in(e.segmentId());
    }
}
