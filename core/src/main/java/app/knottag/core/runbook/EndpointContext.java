package app.knottag.core.runbook;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Method;
import app.knottag.core.time.SiteClock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * What is known around one endpoint, beside its address plan.
 *
 * @param answers answers to its kind's questions, and other facts by their key
 * @param registries names of the registries that hold it and want a restart before it joins
 * @param beside what is looked up only when a gate asks for it
 * @param openings what stands open on it
 */
public record EndpointContext(
        Method method,
        String name,
        String hostName,
        String model,
        Optional<Integer> number,
        Optional<Integer> servicePort,
        Optional<Ipv4Address> partner,
        Optional<Integer> partnerPort,
        Map<String, String> answers,
        List<String> registries,
        Beside beside,
        List<OpenState> openings,
        SiteClock clock) {

    /** Key of the fact that holds the seals that were reported for it, numbers with blanks between. */
    public static final String SEALS = "seals";
    /** Key of the fact that holds the case number that was planned for it. */
    public static final String CASE = "case-number";
    /** Key of the fact that holds its hour of the nightly restart, as 02:30. */
    public static final String RESTART_AT = "restart-at";

    /** Nothing known. */
    public static final EndpointContext NONE = new EndpointContext(
            Method.FIXED,
            "",
            "",
            "",
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            Map.of(),
            List.of(),
            Beside.NOTHING,
            List.of(),
            SiteClock.NONE);

    public EndpointContext {
        answers = Map.copyOf(answers);
        registries = List.copyOf(registries);
        openings = List.copyOf(openings);
    }

    /** Returns these with what is registered, what stands open, and the site's clock. */
    public EndpointContext with(List<String> holding, List<OpenState> open, SiteClock site) {
        return new EndpointContext(
                method,
                name,
                hostName,
                model,
                number,
                servicePort,
                partner,
                partnerPort,
                answers,
                holding,
                beside,
                open,
                site);
    }

    /** Returns these with what may be looked up beside it. */
    public EndpointContext with(Beside lookedUp) {
        return new EndpointContext(
                method,
                name,
                hostName,
                model,
                number,
                servicePort,
                partner,
                partnerPort,
                answers,
                registries,
                lookedUp,
                openings,
                clock);
    }

    /**
     * What few gates ask for and much of a site has to be read for, so that it is read only then.
     *
     * @param others the other endpoints of the site
     * @param usedSeals every seal number ever recorded
     * @param figures what is keyed in on its worksheets, by the key of the worksheet and the field
     * @param counted the number that was counted at a step, by its key
     */
    public record Beside(
            Supplier<List<Other>> others,
            Supplier<Set<String>> usedSeals,
            Function<String, Map<String, String>> figures,
            Function<String, Optional<String>> counted) {
        public static final Beside NOTHING = new Beside(List::of, Set::of, sheet -> Map.of(), step -> Optional.empty());
    }

    /**
     * Another endpoint of the site, as far as one can be taken for the other.
     *
     * @param number its number, when it is of the same kind
     */
    public record Other(String name, String place, Optional<Mac> mac, String serial, Optional<Integer> number) {

        /** Returns its name, and where it belongs when that is known. */
        public String placed() {
            return place.isEmpty() ? name : name + " (" + place + ")";
        }
    }
}
