package app.knottag.core.runbook;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Figures as they are dictated over the phone: every digit by itself and "point" between the groups, so that "fifteen"
 * and "fifty" are never heard for one another. The listener repeats group by group.
 */
public final class Spoken {

    /** Words of the figures 0 to 9. */
    public static final List<String> DIGITS =
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

    private static final Map<String, String> HEARD = heard();

    private static Map<String, String> heard() {
        var words = new HashMap<String, String>();
        for (int i = 0; i < 10; i++) words.put(DIGITS.get(i), "" + i);
        words.putAll(Map.of("oh", "0", "o", "0", "nought", "0", "nil", "0", "niner", "9"));
        for (String point : List.of("point", "dot", "period", "stop", "comma")) words.put(point, ".");
        return words;
    }

    /**
     * Returns the figures of what was repeated in words, such as “one zero point double four”; a text with any other word
     * comes back as it is.
     */
    public static String figures(String said) {
        if (said.matches("[^\\p{L}]*")) return said;
        var figures = new StringBuilder();
        int times = 1;
        for (String word : said.toLowerCase(Locale.ROOT).strip().split("[\\s,-]+")) {
            boolean digits = word.matches("[0-9]{1,3}|\\.");
            String figure = digits ? word : HEARD.get(word);
            if (word.equals("full")) continue;
            if (word.equals("double") || word.equals("triple") || word.equals("treble")) {
                if (times > 1) return said;
                times = word.equals("double") ? 2 : 3;
            } else if (figure == null || times > 1 && figure.length() > 1) return said;
            else {
                figures.append(figure.repeat(times));
                times = 1;
            }
        }
        return times > 1 ? said : figures.toString();
    }
}
