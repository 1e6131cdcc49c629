package app.knottag.core.tag;

/** Tag codes: site code, a short label and a check character (ISO 7064, MOD 37,36) that catches every single slip. */
public final class TagCode {

    private static final String ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    private TagCode() {}

    /**
     * Returns the tag code of an endpoint, such as {@code PGB-T4-K}.
     *
     * @throws IllegalArgumentException if a part holds anything but capital letters, digits and hyphens
     */
    public static String of(String siteCode, String label) {
        String body = siteCode + "-" + label;
        return body + "-" + check(body);
    }

    /** Whether the last character fits the others; hyphens do not count. */
    public static boolean holds(String code) {
        int last = code.lastIndexOf('-');
        return last > 0
                && code.matches("[0-9A-Z-]+")
                && code.substring(last + 1).equals("" + check(code.substring(0, last)));
    }

    private static char check(String body) {
        int product = 36;
        for (char c : body.replace("-", "").toCharArray()) {
            int value = ALPHABET.indexOf(c);
            if (value < 0) throw new IllegalArgumentException("a tag code has capital letters and digits, was " + body);
            int sum = (product + value) % 36;
            product = (sum == 0 ? 36 : sum) * 2 % 37;
        }
        return ALPHABET.charAt((37 - product) % 36);
    }
}
