package app.knottag.core.hardware;

import java.math.BigInteger;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Which of two versions of a firmware is the older one, as far as their figures tell. Makers count as they like: what two
 * people would read in two ways is not decided.
 */
public final class Firmware {

    private static final Pattern LEADING =
            Pattern.compile("^(?:firmware|version|ver|fw|v|rev|r)?[.: ]*(?=\\d)", Pattern.CASE_INSENSITIVE);
    private static final Pattern FIGURES = Pattern.compile("^(\\d+(?:\\.\\d+)*)(.*)$");

    /** A day or a running number, where others have two or three short figures. */
    private static final int ONE_LONG_FIGURE = 5;

    private static final int LONGEST = 40;

    private Firmware() {}

    /** How a unit stands to a fault that is mended in some version. */
    public enum Verdict {
        /** It has the fault. */
        OLD("Has it"),
        UNSURE("Cannot be told"),
        UNREAD("Not read yet"),
        MENDED("Has it no longer"),
        /** It is another model. */
        OTHER_MODEL("Is another model");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Says whether a unit has a fault.
     *
     * @param faulty the model that has it, or empty when all of the kind do
     * @param model of the unit, or empty when it is not on record
     * @param version that was read last; empty when none was
     * @param mended the first version without the fault
     */
    public static Verdict judge(String faulty, String model, Optional<String> version, String mended) {
        if (!faulty.isBlank() && !model.isBlank() && !plain(faulty).equals(plain(model))) return Verdict.OTHER_MODEL;
        if (version.isEmpty()) return Verdict.UNREAD;
        if (!faulty.isBlank() && model.isBlank()) return Verdict.UNSURE;
        return older(version.get(), mended)
                .map(o -> o ? Verdict.OLD : Verdict.MENDED)
                .orElse(Verdict.UNSURE);
    }

    private static String plain(String text) {
        return text.replaceAll("[\\s-]", "").toUpperCase(Locale.ROOT);
    }

    /**
     * Says whether one version is older than another.
     *
     * @return empty when their figures do not tell
     */
    public static Optional<Boolean> older(String version, String than) {
        String left = bare(version), right = bare(than);
        if (left.equalsIgnoreCase(right)) return Optional.of(false);
        var a = FIGURES.matcher(left);
        var b = FIGURES.matcher(right);
        if (!a.matches() || !b.matches()) return Optional.empty();
        var own = a.group(1).split("\\.");
        var other = b.group(1).split("\\.");
        if (longOne(own) != longOne(other)) return Optional.empty();
        for (int i = 0; i < Math.max(own.length, other.length); i++) {
            boolean last = i >= own.length || i >= other.length;
            // What stands behind the figures of the shorter one may say more than the figures of the longer one.
            if (last && !(i >= own.length ? a : b).group(2).isBlank()) return Optional.empty();
            String x = i < own.length ? own[i] : "0", y = i < other.length ? other[i] : "0";
            // 2.03 may be the third or three hundredths: with equally many figures it is the same.
            if (x.length() != y.length() && (padded(x) || padded(y))) return Optional.empty();
            int order = new BigInteger(x).compareTo(new BigInteger(y));
            if (order != 0) return Optional.of(order < 0);
        }
        return a.group(2).isBlank() && b.group(2).isBlank() ? Optional.of(false) : Optional.empty();
    }

    private static boolean padded(String figures) {
        return figures.length() > 1 && figures.startsWith("0");
    }

    private static boolean longOne(String[] figures) {
        return figures[0].length() > ONE_LONG_FIGURE;
    }

    private static String bare(String version) {
        return LEADING.matcher(version.strip()).replaceFirst("");
    }

    /** Says why a text is no version, or nothing when it is one: some figure, and at most 40 characters. */
    public static Optional<String> problem(String version) {
        if (version.length() > LONGEST) return Optional.of("A version has at most " + LONGEST + " characters.");
        return version.chars().anyMatch(Character::isDigit)
                ? Optional.empty()
                : Optional.of("A version has a figure in it, such as 2.4.1. Type it as the device shows it.");
    }
}
