package app.knottag.core.runbook;

import java.util.ArrayList;
import java.util.List;

/**
 * Figures as they are dictated over the phone: every digit by itself and "point" between the groups, so that "fifteen"
 * and "fifty" are never heard for one another. The listener repeats group by group.
 */
public final class Spoken {

    private static final List<String> DIGITS =
            List.of("zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine");

    private Spoken() {}

    /** Returns the groups of an address or mask in words, such as "one zero", "four four"; empty for other texts. */
    public static List<String> groups(String figures) {
        if (!figures.matches("[0-9]{1,3}(\\.[0-9]{1,3}){3}")) return List.of();
        var groups = new ArrayList<String>();
        for (String group : figures.split("\\.")) {
            var words = new ArrayList<String>();
            for (char c : group.toCharArray()) words.add(DIGITS.get(c - '0'));
            groups.add(String.join(" ", words));
        }
        return groups;
    }
}
