package app.knottag.core.plan;

import app.knottag.core.reading.ReadingException;
import java.text.Normalizer;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * How a site names its devices: one host name, the same on the label, in the device, in DHCP and in a portal. Letters,
 * digits and hyphens (RFC 1123), at most fifteen characters, because old file sharing (NetBIOS, RFC 1001) reads no more.
 */
public record NameRule(String pattern) {

    /** Most characters that a name may have. */
    public static final int LONGEST = 15;

    private static final List<String> PARTS = List.of("site", "kind", "series", "number", "place");
    private static final Pattern PART = Pattern.compile("\\{([a-z]*)}");
    private static final Pattern RESERVED_WORD = Pattern.compile("[0-9]+[smhdw]?|infinite|ignore");
    private static final Pattern NAME = Pattern.compile("[a-z0-9]([a-z0-9-]{0,13}[a-z0-9])?");

    /** The rule of a site that has set none. */
    public static final NameRule USUAL = new NameRule("{site}-{kind}{number}");

    /**
     * @throws IllegalArgumentException if the pattern has an unknown part, another character than letters, digits and
     *     hyphens around its parts, or no part that tells one device from another
     */
    public NameRule {
        Matcher part = PART.matcher(pattern);
        while (part.find())
            if (!PARTS.contains(part.group(1)))
                throw new ReadingException(
                        "There is no part {" + part.group(1) + "}; there are {" + String.join("}, {", PARTS) + "}.");
        String around = part.replaceAll("");
        if (!around.matches("[A-Za-z0-9-]*"))
            throw new ReadingException(
                    "Only letters, digits and hyphens may stand around the parts, was “" + around + "”.");
        if (!pattern.contains("{number}") && !pattern.contains("{place}"))
            throw new ReadingException(
                    "The rule needs {number} or {place}, else all devices of a kind are called the same.");
    }

    /**
     * Makes a name.
     *
     * @param values values of the parts by their names; a missing one counts as empty
     * @param taken host names of the other living endpoints, in small letters
     */
    public String name(Map<String, String> values, Collection<String> taken) {
        int number =
                values.getOrDefault("number", "").matches("[0-9]{1,4}") ? Integer.parseInt(values.get("number")) : 0;
        String plain = fill(values, number == 0 ? "" : "" + number);
        if (!taken.contains(plain) && !(number == 0 && pattern.contains("{number}"))) return plain;
        for (int n = number == 0 ? 1 : 2; ; n++) {
            String next = number == 0 && pattern.contains("{number}") ? fill(values, "" + n) : ended(plain, "-" + n);
            if (!taken.contains(next)) return next;
        }
    }

    private String fill(Map<String, String> values, String number) {
        String tidy = filled(values, number);
        // Words are shortened first, the longest part of it being where it stands; kind and number tell one from
        // another.
        var shorter = new HashMap<>(values);
        for (String part : List.of("place", "series"))
            for (String word = plain(values.getOrDefault(part, ""));
                    tidy.length() > LONGEST && word.length() > 1;
                    tidy = filled(shorter, number)) {
                word = word.substring(0, word.length() - 1);
                shorter.put(part, word);
            }
        return tidy.length() <= LONGEST ? tidy : ended(tidy, tail(tidy, number));
    }

    private String filled(Map<String, String> values, String number) {
        return plain(PART.matcher(pattern)
                .replaceAll(m -> Matcher.quoteReplacement(
                        m.group(1).equals("number") ? number : plain(values.getOrDefault(m.group(1), "")))));
    }

    private static String tail(String tidy, String number) {
        return !number.isEmpty() && tidy.endsWith(number) ? number : "";
    }

    private static String ended(String start, String end) {
        int room = LONGEST - end.length();
        String cut = start.endsWith(end) && !end.isEmpty() && start.length() > LONGEST
                ? start.substring(0, start.length() - end.length())
                : start;
        return (cut.length() > room ? cut.substring(0, room) : cut).replaceAll("-+$", "") + end;
    }

    private static String plain(String text) {
        String ascii = Normalizer.normalize(text.replace("ß", "ss"), Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT);
        return ascii.replaceAll("[^a-z0-9]+", "-").replaceAll("^-+|-+$", "");
    }

    /** Returns what is wrong with a host name that was typed, or empty. */
    public static Optional<String> problem(String name) {
        if (name.isEmpty()) return Optional.empty();
        if (name.length() > LONGEST)
            return Optional.of("A host name has at most " + LONGEST + " characters; “" + name + "” has " + name.length()
                    + ". Old file sharing would cut it.");
        // Reservation files take such a word for the length of a lease, or for an order of theirs.
        if (RESERVED_WORD.matcher(name).matches())
            return Optional.of("“" + name
                    + "” means something else in reservation files: a length of time, or an order. Put a letter "
                    + "or a word before it.");
        if (name.length() > 3 && name.startsWith("--", 2))
            return Optional.of("Two hyphens at the third and fourth place are kept for other alphabets (RFC 5891): “"
                    + name + "”.");
        return NAME.matcher(name).matches()
                ? Optional.empty()
                : Optional.of(
                        "A host name has small letters, digits and hyphens, no hyphen at an end: “" + name + "”.");
    }

    /** Returns the names that more than one endpoint has, each with those that have it. */
    public static Map<String, List<String>> clashes(Map<String, String> hostNames) {
        return hostNames.entrySet().stream()
                .filter(e -> !e.getValue().isEmpty())
                .collect(Collectors.groupingBy(
                        Map.Entry::getValue, Collectors.mapping(Map.Entry::getKey, Collectors.toList())))
                .entrySet()
                .stream()
                .filter(e -> e.getValue().size() > 1)
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }
}
