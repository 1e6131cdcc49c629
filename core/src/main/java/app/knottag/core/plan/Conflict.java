package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Something about a plan that does not work, or may not.
 *
 * @param mend the smallest change that mends it, in a sentence
 * @param move the same as a change of one address, when it is one
 */
public record Conflict(
        Severity severity,
        Code code,
        String message,
        String mend,
        List<Long> endpoints,
        @Nullable Long segmentId,
        @Nullable Move move) {

    public Conflict {
        endpoints = List.copyOf(endpoints);
    }

    /** How bad it is; worst first. */
    public enum Severity {
        /** Cannot work, or works only until the other one is switched on. */
        BROKEN,
        /** Works now and may stop. */
        RISK,
        /** Works, and costs somebody time later. */
        UNTIDY
    }

    /** Stable names, in the order of how many people notice. */
    public enum Code {
        ADDRESS_TWICE,
        ADDRESS_SEEN_TWICE,
        OTHER_HOLDS_ADDRESS,
        IS_GATEWAY,
        OUTSIDE_SEGMENT,
        WIRING,
        SERVICE_PORT_TWICE,
        PARTNER_APART,
        IN_POOL,
        SEEN_ELSEWHERE,
        OTHER_INTERFACE,
        SLIP_TO_GATEWAY,
        POOL_SMALL,
        NO_GATEWAY,
        NO_RESOLVER,
        HOST_NAME_TWICE,
        PORTS_SHORT,
        SERIES_FULL,
        NUMBER_GAP,
        NOT_BY_NUMBER,
        NOT_SEEN
    }

    /** Gives one endpoint another address. */
    public record Move(long endpointId, Ipv4Address to) {}

    public static Conflict of(Severity severity, Code code, String message, String mend) {
        return new Conflict(severity, code, message, mend, List.of(), null, null);
    }

    public Conflict on(long... ids) {
        return new Conflict(
                severity, code, message, mend, Arrays.stream(ids).boxed().toList(), segmentId, move);
    }

    public Conflict in(long segment) {
        return new Conflict(severity, code, message, mend, endpoints, segment, move);
    }

    Conflict moving(long endpoint, Optional<Ipv4Address> to) {
        return new Conflict(
                severity,
                code,
                message,
                mend,
                endpoints,
                segmentId,
                to.map(a -> new Move(endpoint, a)).orElse(null));
    }
}
