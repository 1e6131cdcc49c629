package app.knottag.core.register;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Whether a unit, or a part that goes with it, is of the exact variant that something needs. Variants that look alike
 * differ by one suffix on the label, and only one works.
 */
public record VariantMatch(boolean fits, String because) {

    /** A part that must go with the model: an accessory, a key file, a driver, a lead set. */
    public record Part(String name, List<String> models) {}

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

    /** Returns the parts that do not go with a model, each with the reason. */
    public static List<String> unfit(String model, List<Part> parts) {
        var found = new ArrayList<String>();
        for (var part : parts) {
            if (part.models().isEmpty()) continue;
            var match = of(model, part.models());
            if (!match.fits())
                found.add(part.name() + " is for " + String.join(", ", part.models()) + ", not for " + model + ".");
        }
        return found;
    }

    private static String plain(String model) {
        return model.toUpperCase(Locale.ROOT).replaceAll("[\\s_-]+", "");
    }
}
