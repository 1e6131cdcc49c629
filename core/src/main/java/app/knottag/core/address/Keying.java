package app.knottag.core.address;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * What a finger does to figures on a small keypad. Neighbouring keys share an edge, in both layouts in use: the
 * telephone's (123 on top, ITU-T E.161) and the calculator's (789 on top); they differ only in what surrounds 0.
 */
public final class Keying {

    private Keying() {}

    /** Whether two digits stand on neighbouring keys of a numeric pad; never so for anything but digits. */
    public static boolean neighbours(char a, char b) {
        return a >= '0' && a <= '9' && NEIGHBOUR_KEYS[a - '0'].indexOf(b) >= 0;
    }

    private static final String[] NEIGHBOUR_KEYS = neighbourKeys();

    private static String[] neighbourKeys() {
        String[] keys = new String[10];
        for (int digit = 1; digit <= 9; digit++) {
            var near = new StringBuilder();
            int row = (digit - 1) / 3, column = (digit - 1) % 3;
            for (int other = 1; other <= 9; other++)
                if (Math.abs(row - (other - 1) / 3) + Math.abs(column - (other - 1) % 3) == 1) near.append(other);
            if (digit == 1 || digit == 2 || digit == 8) near.append('0');
            keys[digit] = near.toString();
        }
        keys[0] = "128";
        return keys;
    }

    /**
     * Returns the texts that one slip makes of this one, each with a weight 1..10, likelier slips heavier: a figure
     * doubled or dropped, two neighbours swapped, a neighbouring key. Periods stay where they are.
     */
    public static Map<String, Integer> slipsOf(String dotted) {
        var slips = new LinkedHashMap<String, Integer>();
        for (int i = 0; i < dotted.length(); i++) {
            char c = dotted.charAt(i);
            if (c == '.') continue;
            String before = dotted.substring(0, i), after = dotted.substring(i + 1);
            slips.merge(before + c + c + after, 5, Math::max);
            slips.merge(before + after, i + 1 == dotted.length() ? 7 : 6, Math::max);
            if (!after.isEmpty() && after.charAt(0) != '.')
                slips.merge(before + after.charAt(0) + c + after.substring(1), 8, Math::max);
            for (char near : NEIGHBOUR_KEYS[c - '0'].toCharArray()) slips.merge(before + near + after, 5, Math::max);
        }
        slips.remove(dotted);
        return slips;
    }

    // For every group value the values that one slip makes of it; periods stay, so groups can be looked at one by one.
    private static final int[][] GROUP_SLIPS = groupSlips();

    private static int[][] groupSlips() {
        var table = new int[256][];
        for (int value = 0; value < 256; value++) {
            int own = value;
            table[value] = slipsOf("" + value).keySet().stream()
                    .filter(t -> t.matches("[0-9]{1,3}"))
                    .mapToInt(Integer::parseInt)
                    .filter(v -> v <= 255 && v != own)
                    .sorted()
                    .distinct()
                    .toArray();
        }
        return table;
    }

    /** Returns the other addresses that a single slip while keying this one would give, in order. */
    public static Set<Ipv4Address> oneSlipFrom(Ipv4Address address) {
        var reached = new TreeSet<Ipv4Address>();
        for (int g = 0; g < 4; g++) {
            int shift = 24 - 8 * g, rest = address.bits() & ~(0xFF << shift);
            for (int value : GROUP_SLIPS[address.group(g)]) reached.add(new Ipv4Address(rest | value << shift));
        }
        return reached;
    }
}
