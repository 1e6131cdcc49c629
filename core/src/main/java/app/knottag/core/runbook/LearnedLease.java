package app.knottag.core.runbook;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.plan.LeaseCompare;
import app.knottag.core.reading.Reading;
import app.knottag.core.runbook.StepRecord.StepFinding;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What a device said it was given, as it was keyed in at the step that reads it. */
public final class LearnedLease {

    private static final List<String> FIELDS = List.of("ADDRESS", "MASK", "GATEWAY", "RESOLVER_1", "RESOLVER_2");
    private static final int NEEDED = 3;

    private LearnedLease() {}

    /** What the server gave is no mistake of the hand, so nothing is expected of it. */
    private static Reading read(String field, String text) {
        return AddressReader.read(text, field.equals("MASK") ? Purpose.MASK : Purpose.RESOLVER, AddressContext.NONE);
    }

    private static boolean readable(Reading reading) {
        return reading.value() != null && !reading.value().contains(":");
    }

    /** Returns one finding for each field that cannot be read; fields that are empty are left out. */
    static List<StepFinding> unreadable(Map<String, String> evidence) {
        var findings = new ArrayList<StepFinding>();
        for (String field : FIELDS) {
            String text = evidence.getOrDefault(field, "").strip();
            if (text.isEmpty()) continue;
            var reading = read(field, text);
            if (!readable(reading))
                findings.add(new StepFinding(
                        field,
                        reading.findings().isEmpty()
                                ? "Only IPv4 is read here."
                                : reading.findings().get(0).message(),
                        ""));
        }
        return findings;
    }

    /** Compares it with the plan, field by field; empty while it is not whole or there is no address to compare with. */
    public static List<LeaseCompare.Line> compare(EndpointPlan plan, Map<String, String> evidence) {
        var read = new ArrayList<Ipv4Address>();
        for (String field : FIELDS) {
            var reading = read(field, evidence.getOrDefault(field, "").strip());
            if (readable(reading)) read.add(Ipv4Address.parse(reading.value()));
            else if (read.size() < NEEDED) return List.of();
        }
        if (plan.address().isEmpty()) return List.of();
        return LeaseCompare.compare(
                new LeaseCompare.Lease(read.get(0), read.get(1), read.get(2), read.subList(NEEDED, read.size())),
                plan.segment(),
                plan.resolvers(),
                plan.address().get());
    }
}
