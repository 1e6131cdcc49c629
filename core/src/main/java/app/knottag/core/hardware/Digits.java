package app.knottag.core.hardware;

import java.util.ArrayList;
import java.util.List;

/**
 * The hexadecimal digits of a typed MAC and how they were grouped.
 *
 * @param from where the figures begin in the text
 * @param strangeAt index of the first character that is neither digit nor separator, or -1
 * @param oddAt index where the group of another length than the first begins, or of the end
 */
record Digits(int from, List<String> groups, int strangeAt, int oddAt) {

    static Digits of(String plain, int from, String separators) {
        var groups = new ArrayList<String>();
        var group = new StringBuilder();
        int odd = -1, start = from;
        for (int i = from; i <= plain.length(); i++) {
            char c = i == plain.length() ? ' ' : plain.charAt(i);
            if (Character.digit(c, 16) >= 0) {
                if (group.isEmpty()) start = i;
                group.append(c);
            } else if (separators.indexOf(c) >= 0) {
                if (group.isEmpty()) continue;
                if (!groups.isEmpty()
                        && odd < 0
                        && group.length() != groups.get(0).length()) odd = start;
                groups.add(group.toString());
                group.setLength(0);
            } else return new Digits(from, groups, i, i);
        }
        return new Digits(from, groups, -1, odd < 0 ? plain.stripTrailing().length() : odd);
    }

    /** Index in {@link #hex} where a figure too many can stand: in the odd group, or anywhere when all are alike. */
    int firstSuspect() {
        int before = 0;
        for (String group : groups) {
            if (irregular() && group.length() != groups.get(0).length()) return before;
            before += group.length();
        }
        return 0;
    }

    int lastSuspect() {
        int first = firstSuspect();
        if (first == 0) return hex().length();
        return first
                + groups.stream()
                        .filter(g -> g.length() != groups.get(0).length())
                        .findFirst()
                        .orElseThrow()
                        .length();
    }

    String hex() {
        return String.join("", groups);
    }

    /** Six groups of one or two digits, as some neighbour tables print them without zeros in front. */
    boolean shortGroups() {
        return groups.size() == 6 && hex().length() < 12 && groups.stream().allMatch(g -> g.length() <= 2);
    }

    boolean irregular() {
        return groups.stream().mapToInt(String::length).distinct().count() > 1;
    }

    String padded() {
        if (!shortGroups()) return hex();
        return String.join(
                "", groups.stream().map(g -> g.length() == 1 ? "0" + g : g).toList());
    }
}
