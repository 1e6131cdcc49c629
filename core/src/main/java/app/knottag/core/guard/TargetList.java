package app.knottag.core.guard;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.PublicAddresses;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * What a watched outlet looks at: names and addresses, told apart by whether the line is needed to reach them, and by who most
 * likely runs them.
 */
final class TargetList {

    /** A label of a host name (RFC 1123): letters, digits and hyphens inside. */
    private static final Pattern LABEL = Pattern.compile("[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?");

    /** Names that never leave a site: RFC 6762, RFC 8375, and what is kept for inside. */
    private static final List<String> INSIDE = List.of("local", "lan", "home", "internal", "home.arpa", "localhost");

    private static final int LONGEST = 253;
    private static final int MOST = 20;

    /** @param kin what it shares with others that the same hands run: its network, or the end of its name */
    private record Target(String name, String kin, boolean inside) {}

    private final List<Target> targets;

    private TargetList(List<Target> targets) {
        this.targets = targets;
    }

    /**
     * Reads a list, one a line; what is pasted with a scheme, a port or a path counts by its host.
     *
     * @throws ReadingException if a line is neither a name nor an IPv4 address, stands there twice, or there are more than 20
     */
    static TargetList read(String text) {
        var found = new ArrayList<Target>();
        for (String line :
                text.lines().map(String::strip).filter(l -> !l.isEmpty()).toList()) {
            var target = target(line);
            if (found.stream().anyMatch(t -> t.name.equals(target.name)))
                throw new ReadingException("“" + target.name + "” stands there twice.");
            found.add(target);
        }
        if (found.size() > MOST)
            throw new ReadingException("There are " + found.size() + "; at most " + MOST + " are read.");
        return new TargetList(found);
    }

    private static Target target(String line) {
        String host = line.toLowerCase(Locale.ROOT)
                .replaceFirst("^[a-z]+://", "")
                .replaceFirst("/.*$", "")
                .replaceFirst(":[0-9]+$", "")
                .replaceFirst("\\.$", "");
        Optional<Ipv4Address> address = Ipv4Address.read(host);
        if (address.isPresent())
            return new Target(
                    host, Ipv4Prefix.around(address.get(), 24).toString(), !PublicAddresses.include(address.get()));
        var labels = List.of(host.split("\\.", -1));
        boolean figures = host.matches("[0-9.]+");
        if (figures
                || host.length() > LONGEST
                || labels.stream().anyMatch(l -> !LABEL.matcher(l).matches()))
            throw new ReadingException("“" + line + "” is neither a name nor an address.");
        boolean inside = labels.size() == 1 || INSIDE.stream().anyMatch(i -> host.equals(i) || host.endsWith("." + i));
        return new Target(
                host, String.join(".", labels.subList(Math.max(0, labels.size() - 2), labels.size())), inside);
    }

    boolean isEmpty() {
        return targets.isEmpty();
    }

    int size() {
        return targets.size();
    }

    /** Those that answer while the line is down. */
    List<String> inside() {
        return targets.stream().filter(t -> t.inside).map(Target::name).toList();
    }

    List<String> outside() {
        return targets.stream().filter(t -> !t.inside).map(Target::name).toList();
    }

    /** Those outside that most likely fail together. */
    List<List<String>> together() {
        Map<String, List<String>> byKin = targets.stream()
                .filter(t -> !t.inside)
                .collect(Collectors.groupingBy(
                        Target::kin, HashMap::new, Collectors.mapping(Target::name, Collectors.toList())));
        return byKin.values().stream()
                .filter(names -> names.size() > 1)
                .sorted((a, b) -> a.get(0).compareTo(b.get(0)))
                .toList();
    }

    /** How many of those outside fail each by itself. */
    int apart() {
        return (int) targets.stream()
                .filter(t -> !t.inside)
                .map(Target::kin)
                .distinct()
                .count();
    }
}
