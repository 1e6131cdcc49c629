package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Method;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * What a proof belongs to: a place, an outlet and port, a unit, an address and a configuration. When one of these changes, the
 * proofs that rest on it no longer hold.
 *
 * @param settings all else that is typed in: method, mask, gateway, resolvers
 * @param resets how often the unit was reset so far, 0 or more
 * @param moves how often it was moved so far, 0 or more
 */
public record ProofBasis(
        String place,
        String outlet,
        String port,
        String mac,
        String serial,
        String address,
        int servicePort,
        String partner,
        String settings,
        int resets,
        int moves) {

    /** What can change. */
    public enum Change {
        PLACE,
        PORT,
        UNIT,
        ADDRESS,
        SERVICE_PORT,
        PARTNER,
        SETTINGS,
        RESET
    }

    /** Returns what is typed in beside the address, as it is compared. */
    public static String settings(Method method, Segment segment, List<Ipv4Address> resolvers) {
        return String.join(
                " ",
                method.name(),
                "/" + segment.prefix().prefixLength(),
                segment.gateway().map(Ipv4Address::toString).orElse("-"),
                resolvers.toString());
    }

    /** Returns what is other than it was. What was not known yet is no change of place, outlet or port. */
    public Set<Change> changed(ProofBasis now) {
        return changes(now).stream()
                .map(Said::change)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(Change.class)));
    }

    /** One change, in words for a person. */
    private record Said(Change change, String words) {}

    /** Returns why a proof that was made then no longer holds now, or empty while it does. */
    public Optional<String> loosens(Check check, ProofBasis now) {
        return changes(now).stream()
                .filter(s -> check.loosenedBy().contains(s.change()))
                .map(Said::words)
                .findFirst();
    }

    /** Returns all on which a proof of this check rests; while it is the same nothing loosens one. */
    public String restsOn(Check check) {
        return check.loosenedBy().stream().map(this::part).collect(Collectors.joining("\n"));
    }

    private String part(Change change) {
        return switch (change) {
            case PLACE -> place.toLowerCase(Locale.ROOT) + " " + moves;
            case PORT -> outlet.toLowerCase(Locale.ROOT) + "\t" + port.toLowerCase(Locale.ROOT);
            case UNIT -> mac + " " + serial;
            case ADDRESS -> address;
            case SERVICE_PORT -> "" + servicePort;
            case PARTNER -> partner;
            case SETTINGS -> settings;
            case RESET -> "" + resets;
        };
    }

    private List<Said> changes(ProofBasis now) {
        var all = new ArrayList<Said>();
        if (!mac.equals(now.mac) || !serial.equals(now.serial))
            all.add(new Said(
                    Change.UNIT,
                    serial.equals(now.serial)
                            ? "Its MAC on record is another since: " + now.mac + ", was " + mac + "."
                            : "Another unit stands here since: serial " + now.serial + ", was " + serial + "."));
        if (resets != now.resets) all.add(new Said(Change.RESET, "It was reset since."));
        if (moved(place, now.place))
            all.add(new Said(Change.PLACE, "It moved since, from " + place + " to " + shown(now.place) + "."));
        if (moved(outlet, now.outlet))
            all.add(new Said(
                    Change.PORT, "It has another outlet since: " + shown(now.outlet) + ", was " + outlet + "."));
        if (moved(port, now.port))
            all.add(new Said(Change.PORT, "It has another port since: " + shown(now.port) + ", was " + port + "."));
        if (moves != now.moves) all.add(new Said(Change.PLACE, "It moved since."));
        if (!address.equals(now.address))
            all.add(new Said(
                    Change.ADDRESS, "Its address is another since: " + shown(now.address) + ", was " + address + "."));
        if (servicePort != now.servicePort)
            all.add(new Said(
                    Change.SERVICE_PORT,
                    "Its service port is another since: " + now.servicePort + ", was " + servicePort + "."));
        if (!partner.equals(now.partner))
            all.add(new Said(Change.PARTNER, "Its partner is another since, or has another address."));
        if (!settings.equals(now.settings))
            all.add(new Said(Change.SETTINGS, "Its mask, gateway, resolvers or method are others since."));
        return all;
    }

    /** What was not known yet is only noted. */
    private static boolean moved(String was, String is) {
        return !was.isEmpty() && !was.equalsIgnoreCase(is);
    }

    private static String shown(String text) {
        return text.isEmpty() ? "none" : text;
    }
}
