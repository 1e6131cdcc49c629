package app.knottag.core.handover;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Tag codes: site code, a short label and two check characters (ISO/IEC 7064, MOD 1271-36). Every single wrong character
 * and every swap of neighbours is found, whatever the length; hyphens are for the eye and do not count.
 */
public final class TagCode {

    private static final String ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    private static final int MODULUS = 1271;
    private static final int LONGEST = 24;
    /** Characters that one is taken for by eye or ear; the likeliest slips. */
    private static final List<String> ALIKE =
            List.of("0OQD", "1IL", "2Z", "5S", "6G", "8B", "UV", "MN", "BDEPT", "CK", "FS");

    private TagCode() {}

    /** One reading of a code that does not hold: what may have been meant, and what is different in it. */
    public record Meant(String bare, int position, String how) {}

    /**
     * What a typed or scanned text says.
     *
     * @param bare the code in capitals without hyphens, when it holds
     * @param meant codes one slip away that hold, the likeliest first; empty when it holds
     * @param said what is wrong with it, or empty
     */
    public record Read(Optional<String> bare, List<Meant> meant, String said) {}

    /**
     * Returns the tag code of an endpoint, such as {@code PGB-T4-4G}.
     *
     * @throws IllegalArgumentException if a part holds anything but capital letters, digits and hyphens
     */
    public static String of(String siteCode, String label) {
        String body = siteCode + "-" + label;
        return body + "-" + check(bare(body));
    }

    /** Whether the last two characters fit the others; hyphens do not count. */
    public static boolean holds(String code) {
        return code.matches("[0-9A-Z-]+") && fits(bare(code));
    }

    /** Returns a code without its hyphens, as it stands in bar codes. */
    public static String bare(String code) {
        return code.replace("-", "");
    }

    /** Reads what was typed, scanned, or stands in the short address that a tag shows. */
    public static Read read(String text) {
        String tail = text.strip().replaceFirst("(?i)^.*/t/", "");
        String bare = tail.toUpperCase(Locale.ROOT).replaceAll("[^0-9A-Z]", "");
        if (bare.isEmpty())
            return new Read(Optional.empty(), List.of(), "No letter and no figure of a tag code in it.");
        if (bare.length() > LONGEST)
            return new Read(
                    Optional.empty(),
                    List.of(),
                    bare.length() + " characters: a tag code has at most " + LONGEST + ".");
        if (fits(bare)) return new Read(Optional.of(bare), List.of(), "");
        return new Read(
                Optional.empty(), near(bare), "“" + tail + "” does not hold: one of its characters is another.");
    }

    private static boolean fits(String bare) {
        return bare.length() > 2 && bare.endsWith(check(bare.substring(0, bare.length() - 2)));
    }

    private static String check(String body) {
        int sum = 0;
        for (char c : body.toCharArray()) {
            int value = ALPHABET.indexOf(c);
            if (value < 0) throw new IllegalArgumentException("a tag code has capital letters and digits, was " + body);
            sum = (sum + value) * 36 % MODULUS;
        }
        int check = (MODULUS + 1 - sum * 36 % MODULUS) % MODULUS;
        return "" + ALPHABET.charAt(check / 36) + ALPHABET.charAt(check % 36);
    }

    /** All codes that hold and are one slip away: a swap, a character that looks or sounds alike, any other, one too many, one short. */
    private static List<Meant> near(String bare) {
        var alike = new ArrayList<Meant>();
        var other = new ArrayList<Meant>();
        for (int i = 0; i < bare.length(); i++) {
            String before = bare.substring(0, i), after = bare.substring(i + 1);
            char has = bare.charAt(i);
            if (!after.isEmpty())
                keep(
                        alike,
                        before + after.charAt(0) + has + after.substring(1),
                        i,
                        has + " and " + after.charAt(0) + " are swapped");
            for (char c : ALPHABET.toCharArray())
                if (c != has)
                    keep(alike(has, c) ? alike : other, before + c + after, i, has + " where " + c + " stands");
            keep(other, before + after, i, has + " is one too many");
        }
        for (int i = 0; i <= bare.length(); i++)
            for (char c : ALPHABET.toCharArray())
                keep(other, bare.substring(0, i) + c + bare.substring(i), i, c + " is missing");
        alike.addAll(other);
        return List.copyOf(alike);
    }

    private static boolean alike(char a, char b) {
        return ALIKE.stream().anyMatch(s -> s.indexOf(a) >= 0 && s.indexOf(b) >= 0);
    }

    private static void keep(List<Meant> into, String bare, int position, String how) {
        if (fits(bare) && into.stream().noneMatch(m -> m.bare().equals(bare))) into.add(new Meant(bare, position, how));
    }
}
