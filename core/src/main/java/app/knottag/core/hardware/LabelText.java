package app.knottag.core.hardware;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Tells apart what came from a label in one piece, by a bar code wedge, a camera or a paste: which part is a MAC, which
 * a serial, which a model. Figures are handed on as they came; the readers judge them.
 *
 * @param macs texts that are, or are meant to be, MACs
 * @param rest what nobody could place
 */
public record LabelText(List<String> macs, Optional<String> serial, Optional<String> model, List<String> rest) {

    private static final Pattern PARTS = Pattern.compile("[;|\\r\\n\\t]+|,(?=\\s*[A-Za-z/]+\\s*[:=])|\\s{2,}");
    private static final Pattern NAMED = Pattern.compile(
            "(?i)^\\s*(w?lan mac|mac(?:\\s*(?:address|addr|id))?|eth(?:ernet)?(?:\\s*id)?|hw(?:addr)?|wifi "
                    + "mac|s/?n|ser(?:ial)?(?:\\s*(?:no|number|nr))?\\.?|model(?:\\s*no)?\\.?|m/?n|p/?n|type)\\s*[:=#]\\s*(.+)$");
    private static final Pattern TWELVE = Pattern.compile("[0-9A-Za-z]{12}");

    public LabelText {
        macs = List.copyOf(macs);
        rest = List.copyOf(rest);
    }

    /**
     * Sorts a text.
     *
     * @param serialPattern regular expression that serials of this kind match, or empty when none is known
     */
    public static LabelText of(String text, String serialPattern) {
        var macs = new ArrayList<String>();
        var rest = new ArrayList<String>();
        String serial = null, model = null;
        for (String part : PARTS.split(text.strip())) {
            String piece = part.strip();
            if (piece.isEmpty()) continue;
            var named = NAMED.matcher(piece);
            if (named.matches()) {
                String word = named.group(1).toLowerCase(Locale.ROOT),
                        value = named.group(2).strip();
                if (word.startsWith("s")) serial = value;
                else if (word.startsWith("model")
                        || word.equals("type")
                        || word.startsWith("p")
                        || word.matches("m/?n")) model = value;
                else macs.add(value);
            } else if (!serialPattern.isEmpty()
                    && com.google.re2j.Pattern.matches(serialPattern, piece.toUpperCase(Locale.ROOT))) serial = piece;
            else if (likeMac(piece)) macs.add(piece);
            else if (serial == null && serialPattern.isEmpty() && piece.matches("[A-Za-z0-9./-]{4,40}")) serial = piece;
            else rest.add(piece);
        }
        return new LabelText(macs, Optional.ofNullable(serial), Optional.ofNullable(model), rest);
    }

    /** Twelve characters of which at most two are letters that a MAC cannot have, with or without separators. */
    private static boolean likeMac(String piece) {
        String plain = piece.replaceAll("[:\\-. ]", "");
        if (!TWELVE.matcher(plain).matches()) return false;
        long wrong = plain.toUpperCase(Locale.ROOT).chars().filter(c -> c > 'F').count();
        boolean separated = piece.matches("(?:[^:.-]{2}[:-]){5}[^:.-]{2}|(?:[^:.-]{4}\\.){2}[^:.-]{4}");
        return separated ? wrong <= 4 : wrong <= 2;
    }
}
