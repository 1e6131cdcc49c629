package app.knottag.core.runbook;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind.Field;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What is planned and known of one endpoint, as far as its runbook needs it. */
public record EndpointPlan(
        Optional<Ipv4Address> address,
        Segment segment,
        List<Ipv4Address> resolvers,
        Optional<Mac> mac,
        Optional<String> serial,
        Set<Ipv4Address> taken,
        boolean confirmed,
        EndpointContext around) {

    /** Returns the plan with more known around it. */
    public EndpointPlan with(EndpointContext surroundings) {
        return new EndpointPlan(address, segment, resolvers, mac, serial, taken, confirmed, surroundings);
    }

    /** Returns the planned value of a menu field as canonical text, or empty when the plan has none. */
    public Optional<String> planned(Field field) {
        return switch (field) {
            case ADDRESS -> address.map(Ipv4Address::toString);
            case MASK -> Optional.of(segment.prefix().mask().toString());
            case GATEWAY -> segment.gateway().map(Ipv4Address::toString);
            case RESOLVER_1 -> resolver(0);
            case RESOLVER_2 -> resolver(1);
            case NUMBER -> around.number().map(String::valueOf);
            case NAME -> Optional.of(around.hostName()).filter(n -> !n.isEmpty());
            case SERVICE_PORT -> around.servicePort().map(String::valueOf);
            case PARTNER_ADDRESS -> around.partner().map(Ipv4Address::toString);
            case PARTNER_PORT -> around.partnerPort().map(String::valueOf);
            case ZONE -> Optional.of(around.clock().zone().getId());
            case RESTART_AT -> Optional.ofNullable(around.answers().get(EndpointContext.RESTART_AT));
            case MAC -> mac.map(Mac::toString);
            case SERIAL -> serial;
            case MODEL -> Optional.of(around.model()).filter(m -> !m.isEmpty());
            case OTHER -> Optional.empty();
        };
    }

    private Optional<String> resolver(int index) {
        return index < resolvers.size() ? Optional.of(resolvers.get(index).toString()) : Optional.empty();
    }

    static Purpose purpose(Field field) {
        return switch (field) {
            case MASK -> Purpose.MASK;
            case GATEWAY -> Purpose.GATEWAY;
            case RESOLVER_1, RESOLVER_2, PARTNER_ADDRESS -> Purpose.RESOLVER;
            default -> Purpose.ADDRESS;
        };
    }

    AddressContext context(String expected) {
        return new AddressContext(Optional.of(segment), taken, Optional.of(expected));
    }
}
