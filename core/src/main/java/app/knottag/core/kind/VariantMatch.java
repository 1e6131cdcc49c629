package app.knottag.core.kind;

import java.util.List;
import java.util.Locale;

/**
 * Whether a unit, or a part that goes with it, is of the exact variant that something needs. Variants that look alike
 * differ by one suffix on the label, and only one works.
 */
public record VariantMatch(boolean fits, String because) {

    /** Compares a model with those that are taken; capitals, blanks and hyphens do not count. */
    public static VariantMatch of(String model, List<String> taken) {
        for (String t : taken) if (plain(t).equals(plain(model))) return new VariantMatch(true, "Model " + t + ".");
        for (String t : taken) {
            String a = plain(model), b = plain(t);
            int same = 0;
            while (same < Math.min(a.length(), b.length()) && a.charAt(same) == b.charAt(same)) same++;
            if (same >= 3 && Math.max(a.length(), b.length()) - same <= 2)
                return new VariantMatch(
                        false,
                        model + " looks like " + t + ", and is another variant: it ends in “"
                                + a.substring(same) + "” instead of “" + b.substring(same)
                                + "”. Look at the label on the underside.");
        }
        return new VariantMatch(false, model + " is not taken; " + String.join(" or ", taken) + " is.");
    }

    private static String plain(String model) {
        return model.toUpperCase(Locale.ROOT).replaceAll("[\\s_-]+", "");
    }
}
