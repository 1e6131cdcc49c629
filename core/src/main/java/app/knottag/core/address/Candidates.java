package app.knottag.core.address;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What may have been meant by a text that is not an address, or not one of this segment: every undoing of one slip,
 * the likelier slip and the more fitting address first.
 */
final class Candidates {

    private static final int MOST = 5;
    private final AddressContext context;
    private final Map<Ipv4Address, Integer> weights = new HashMap<>();

    private Candidates(AddressContext context) {
        this.context = context;
    }

    /** For a text whose groups are wrong in number or size. */
    static List<String> forText(String dotted, AddressContext context) {
        var candidates = new Candidates(context);
        int periods = (int) dotted.chars().filter(c -> c == '.').count();
        candidates.offer(dotted.replaceAll("(^|\\.)0+(?=[0-9])", "$1"), 12);
        if (periods < 3) candidates.offerSplits(dotted, 3 - periods, 0);
        if (periods > 3) candidates.offerJoins(dotted);
        candidates.offerEdits(dotted);
        candidates.offerWithSegmentGroups(dotted);
        return candidates.best();
    }

    /** For an address that lies outside the segment. */
    static List<String> insideSegment(Ipv4Address typed, AddressContext context) {
        var candidates = new Candidates(context);
        candidates.offerEdits(typed.toString());
        for (int i = 0; i < 4; i++)
            for (int j = i + 1; j < 4; j++) {
                var groups = new ArrayList<>(List.of(typed.toString().split("\\.")));
                Collections.swap(groups, i, j);
                candidates.offer(String.join(".", groups), 6);
            }
        candidates.offerOneGroupFromSegment(typed);
        candidates.weights.keySet().removeIf(a -> !candidates.inside(a));
        return candidates.best();
    }

    private void offer(String text, int weight) {
        AddressText.strict(text).ifPresent(a -> weights.merge(a, weight, Math::max));
    }

    private void offerSplits(String text, int missing, int from) {
        if (missing == 0) {
            offer(text, 10);
            return;
        }
        if (text.length() > 15) return;
        for (int i = Math.max(1, from); i < text.length(); i++) {
            if (text.charAt(i) == '.' || text.charAt(i - 1) == '.') continue;
            offerSplits(text.substring(0, i) + "." + text.substring(i), missing - 1, i + 1);
        }
    }

    private void offerJoins(String text) {
        for (int i = text.indexOf('.'); i >= 0; i = text.indexOf('.', i + 1))
            offer(text.substring(0, i) + text.substring(i + 1), 10);
        var groups = List.of(text.split("\\.", -1));
        for (int i = 0; i < groups.size(); i++) {
            var without = new ArrayList<>(groups);
            without.remove(i);
            offer(String.join(".", without), groups.get(i).isEmpty() ? 10 : i == 4 ? 5 : 4);
        }
    }

    private void offerEdits(String text) {
        Keying.slipsOf(text).forEach(this::offer);
        for (int i = 0; i <= text.length(); i++)
            for (char digit = '0'; digit <= '9'; digit++)
                if (text.length() <= 15) offer(text.substring(0, i) + digit + text.substring(i), 4);
    }

    /** A whole group left out or left empty: the segment's own figures fill it. */
    private void offerWithSegmentGroups(String dotted) {
        segment().ifPresent(segment -> {
            var groups = List.of(dotted.split("\\.", -1));
            if (groups.size() > 4) return;
            int missing = 4 - groups.size();
            for (int at = 0; at <= groups.size(); at++) {
                var filled = new ArrayList<>(groups);
                for (int k = 0; k < missing; k++)
                    filled.add(at + k, "" + segment.prefix().network().group(Math.min(3, at + k)));
                for (int g = 0; g < filled.size(); g++)
                    if (filled.get(g).isEmpty())
                        filled.set(g, "" + segment.prefix().network().group(g));
                offer(String.join(".", filled), 7);
            }
        });
    }

    private void offerOneGroupFromSegment(Ipv4Address typed) {
        segment().ifPresent(segment -> {
            for (int g = 0; g < 4; g++) {
                var groups = new ArrayList<>(List.of(typed.toString().split("\\.")));
                groups.set(g, "" + segment.prefix().network().group(g));
                offer(String.join(".", groups), 5);
            }
        });
    }

    private Optional<Segment> segment() {
        return context.segment();
    }

    private List<String> best() {
        boolean anyInside = segment().isPresent() && weights.keySet().stream().anyMatch(this::inside);
        return weights.entrySet().stream()
                .filter(e -> !anyInside || inside(e.getKey()))
                .filter(e -> e.getKey().group(0) > 0)
                .sorted(Comparator.comparingInt(
                                (Map.Entry<Ipv4Address, Integer> e) -> -e.getValue() - fitness(e.getKey()))
                        .thenComparing(Map.Entry::getKey))
                .limit(MOST)
                .map(e -> e.getKey().toString())
                .toList();
    }

    private boolean inside(Ipv4Address address) {
        return segment().orElseThrow().prefix().usable(address);
    }

    private int fitness(Ipv4Address address) {
        if (context.expected().filter(address.toString()::equals).isPresent()) return 100;
        int fitness = context.taken().contains(address) ? 0 : 2;
        return fitness + (segment().filter(s -> s.fixable(address)).isPresent() ? 2 : 0);
    }
}
