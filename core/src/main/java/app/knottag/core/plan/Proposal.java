package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import java.util.List;
import java.util.function.Function;

/** What the planner answers. */
public sealed interface Proposal {

    <R> R match(Function<Placed, R> ifPlaced, Function<Refused, R> ifRefused);

    /**
     * An address that can be given.
     *
     * @param reasons why this one, one line each
     * @param alternatives other free addresses, safest first
     */
    record Placed(Choice choice, List<String> reasons, List<Choice> alternatives) implements Proposal {
        @Override
        public <R> R match(Function<Placed, R> ifPlaced, Function<Refused, R> ifRefused) {
            return ifPlaced.apply(this);
        }
    }

    /** No address is left to give; says what clashes and the least that would have to give. */
    record Refused(String clash, String leastChange) implements Proposal {
        @Override
        public <R> R match(Function<Placed, R> ifPlaced, Function<Refused, R> ifRefused) {
            return ifRefused.apply(this);
        }
    }

    /**
     * One address and its slip risk.
     *
     * @param oneSlipFrom names of the living endpoints, or the gateway, that a single keying slip would hit
     */
    record Choice(Ipv4Address address, List<String> oneSlipFrom) {}
}
