package app.knottag.core.gear;

import app.knottag.core.gear.GearReading.Port;
import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Gear.Role;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Which of the ports that gear tells of is which on record. Gear names its ports as it likes; the record counts what is
 * printed on it. They are held for the same only when the names leave no choice.
 */
public final class PortNames {

    private static final Pattern NUMBER = Pattern.compile("(.*?)(\\d{1,3})\\D{0,2}");

    /** @param why why they could not be told apart, or empty */
    public record Matched(Map<Integer, Port> byNumber, String why) {}

    private PortNames() {}

    /** Returns the number at the end of a name, such as 5 of “gi1/0/5”. */
    static Optional<Integer> printed(String label) {
        var m = NUMBER.matcher(label);
        return m.matches() ? Optional.of(Integer.valueOf(m.group(2))) : Optional.empty();
    }

    private static String family(String label) {
        var m = NUMBER.matcher(label);
        return m.matches() ? m.group(1) : label;
    }

    /** Tells which port on record each is. */
    public static Matched match(Gear gear, List<Port> read) {
        var recorded = gear.ports().stream().map(Gear.Port::number).collect(Collectors.toSet());
        var matched = new TreeMap<Integer, Port>();
        onlyWan(gear, read).ifPresent(p -> matched.put(wan(gear).get(0).number(), p));
        var families = new HashMap<String, List<Port>>();
        for (var p : read)
            if (printed(p.label()).isPresent() && !matched.containsValue(p))
                families.computeIfAbsent(family(p.label()), f -> new ArrayList<>())
                        .add(p);
        if (families.isEmpty())
            return new Matched(matched, matched.isEmpty() ? "Its ports have no numbers in their names." : "");
        int most = families.values().stream().mapToInt(List::size).max().orElse(0);
        var largest = families.values().stream().filter(f -> f.size() == most).toList();
        if (largest.size() > 1)
            return new Matched(
                    matched, "Several of its ports have the same number, so which is which has to be looked at.");
        var ports = largest.get(0);
        if (ports.stream().anyMatch(p -> printed(p.label()).orElse(0) == 0))
            return new Matched(
                    matched,
                    "It counts its ports from 0 and the record from 1, so which is which has to be looked at.");
        // A few that are named otherwise, such as those for fibre, only where their numbers go on from the rest.
        families.values().stream()
                .sorted(Comparator.comparingInt(f -> -f.size()))
                .flatMap(List::stream)
                .filter(p -> recorded.contains(printed(p.label()).orElse(0)))
                .forEach(p -> matched.putIfAbsent(printed(p.label()).orElse(0), p));
        return new Matched(matched, matched.isEmpty() ? "None of its ports has a number that is on record." : "");
    }

    private static List<Gear.Port> wan(Gear gear) {
        return gear.ports().stream().filter(p -> p.role() == Role.WAN).toList();
    }

    /** The one socket that is called WAN, where the record has one as well. */
    private static Optional<Port> onlyWan(Gear gear, List<Port> read) {
        var called = read.stream()
                .filter(p -> p.label().matches("(?i).*wan\\W*\\d?"))
                .toList();
        return wan(gear).size() == 1 && called.size() == 1 ? Optional.of(called.get(0)) : Optional.empty();
    }
}
