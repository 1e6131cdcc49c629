package app.knottag.core.address;

import app.knottag.core.reading.Slip;
import app.knottag.core.reading.Slip.Kind;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Names the slip that turns an expected address or mask into what was typed. */
final class SlipFinder {

    private static final String[] ORDINALS = {"first", "second", "third", "last"};

    private SlipFinder() {}

    /**
     * Returns the slip, or empty when both say the same address.
     *
     * @param typed groups of figures with periods between, any number of groups, zeros in front allowed
     * @param expected canonical address or mask
     */
    public static Optional<Slip> find(String typed, String expected) {
        String canonical = withoutLeadingZeros(typed);
        if (canonical.equals(expected)) return Optional.empty();
        List<String> is = List.of(canonical.split("\\.", -1)), want = List.of(expected.split("\\.", -1));
        if (is.size() == want.size()) return Optional.of(sameCount(is, want, canonical));
        if (is.size() > want.size()) return Optional.of(addedGroup(is, want, expected));
        return Optional.of(fewerGroups(is, want, canonical, expected));
    }

    private static String withoutLeadingZeros(String typed) {
        if (typed.matches("[0-9]{12}")) typed = typed.replaceAll("([0-9]{3})(?=.)", "$1.");
        return String.join(
                ".",
                Arrays.stream(typed.split("\\.", -1))
                        .map(g -> g.replaceFirst("^0+(?=[0-9])", ""))
                        .toList());
    }

    private static Slip sameCount(List<String> is, List<String> want, String canonical) {
        var wrong = new ArrayList<Integer>();
        for (int i = 0; i < is.size(); i++) if (!is.get(i).equals(want.get(i))) wrong.add(i);
        int first = wrong.get(0);
        if (wrong.size() == 2
                && is.get(first).equals(want.get(wrong.get(1)))
                && is.get(wrong.get(1)).equals(want.get(first)))
            return slip(
                    Kind.SWAPPED,
                    "Two groups swapped: " + is.get(first) + " and " + is.get(wrong.get(1)) + ".",
                    offset(is, first),
                    first);
        if (wrong.size() == 1) return inGroup(is, want, first);
        if (wrong.size() == 2
                && wrong.get(1) == first + 1
                && (is.get(first) + is.get(first + 1)).equals(want.get(first) + want.get(first + 1)))
            return slip(
                    Kind.MISSING_PERIOD,
                    "The period stands one place off: " + is.get(first) + "." + is.get(first + 1) + " typed, "
                            + want.get(first) + "." + want.get(first + 1) + " planned.",
                    offset(is, first),
                    first);
        return different(canonical, String.join(".", want));
    }

    private static Slip inGroup(List<String> is, List<String> want, int index) {
        String typed = is.get(index), planned = want.get(index);
        int at = 0;
        while (at < typed.length() && at < planned.length() && typed.charAt(at) == planned.charAt(at)) at++;
        int position = offset(is, index) + Math.min(at, Math.max(0, typed.length() - 1));
        String both = where(index, want.size()) + ": " + (typed.isEmpty() ? "nothing" : typed) + " typed, " + planned
                + " planned.";
        if (removing(planned, typed)) return slip(Kind.DROPPED, "A figure is missing in the " + both, position, index);
        if (doubling(planned, typed))
            return slip(Kind.DOUBLED, "A figure was keyed twice in the " + both, position, index);
        if (swapping(planned, typed)) return slip(Kind.SWAPPED, "Two figures swapped in the " + both, position, index);
        if (typed.length() == planned.length()
                && typed.substring(Math.min(at + 1, typed.length()))
                        .equals(planned.substring(Math.min(at + 1, planned.length())))
                && at < typed.length()
                && Character.isDigit(typed.charAt(at))
                && Keying.neighbours(typed.charAt(at), planned.charAt(at)))
            return slip(Kind.NEIGHBOUR_KEY, "A neighbouring key in the " + both, position, index);
        return slip(Kind.WRONG_GROUP, "Wrong figures in the " + both, offset(is, index), index);
    }

    private static boolean removing(String longer, String shorter) {
        if (longer.length() != shorter.length() + 1) return false;
        for (int i = 0; i < longer.length(); i++)
            if ((longer.substring(0, i) + longer.substring(i + 1)).equals(shorter)) return true;
        return false;
    }

    private static boolean doubling(String planned, String typed) {
        for (int i = 0; i < planned.length(); i++)
            if (typed.equals(planned.substring(0, i + 1) + planned.substring(i))) return true;
        return false;
    }

    private static boolean swapping(String planned, String typed) {
        for (int i = 0; i + 1 < planned.length(); i++)
            if (typed.equals(
                    planned.substring(0, i) + planned.charAt(i + 1) + planned.charAt(i) + planned.substring(i + 2)))
                return true;
        return false;
    }

    private static Slip addedGroup(List<String> is, List<String> want, String expected) {
        if (is.size() == want.size() + 1) {
            for (int i = 0; i < is.size(); i++) {
                var without = new ArrayList<>(is);
                without.remove(i);
                if (without.equals(want))
                    return slip(
                            Kind.ADDED_GROUP,
                            "A group too many: " + (is.get(i).isEmpty() ? "an empty one" : is.get(i)) + " was added.",
                            offset(is, i),
                            i);
            }
            for (int i = 0; i + 1 < is.size(); i++) {
                var joined = new ArrayList<>(is);
                joined.set(i, joined.get(i) + joined.remove(i + 1));
                if (joined.equals(want))
                    return slip(
                            Kind.ADDED_GROUP,
                            "A period too many cuts " + want.get(i) + " into " + is.get(i) + "." + is.get(i + 1) + ".",
                            offset(is, i + 1) - 1,
                            i);
            }
        }
        return different(String.join(".", is), expected);
    }

    private static Slip fewerGroups(List<String> is, List<String> want, String canonical, String expected) {
        if (canonical.replace(".", "").equals(expected.replace(".", ""))) {
            int at = 0;
            while (at < canonical.length() && canonical.charAt(at) == expected.charAt(at)) at++;
            int group = (int)
                    expected.substring(0, at).chars().filter(c -> c == '.').count();
            return slip(Kind.MISSING_PERIOD, "A period is missing after " + want.get(group) + ".", at, group);
        }
        if (is.size() == want.size() - 1)
            for (int i = 0; i < want.size(); i++) {
                var without = new ArrayList<>(want);
                without.remove(i);
                if (without.equals(is))
                    return slip(
                            Kind.DROPPED,
                            "The " + where(i, want.size()) + ", " + want.get(i) + ", is missing.",
                            Math.min(offset(is, Math.min(i, is.size() - 1)), canonical.length()),
                            i);
            }
        return different(canonical, expected);
    }

    private static Slip different(String typed, String expected) {
        return new Slip(
                Kind.DIFFERENT,
                typed + " is another value than the planned " + expected + "; no single slip explains it.",
                null,
                null);
    }

    private static Slip slip(Kind kind, String message, int position, int groupIndex) {
        return new Slip(kind, message, position, groupIndex + 1);
    }

    private static String where(int index, int count) {
        return (index == count - 1 ? "last" : ORDINALS[Math.min(index, 3)]) + " group";
    }

    private static int offset(List<String> groups, int index) {
        return String.join(".", groups.subList(0, index)).length() + (index == 0 ? 0 : 1);
    }
}
