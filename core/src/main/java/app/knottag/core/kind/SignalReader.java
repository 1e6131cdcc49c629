package app.knottag.core.kind;

import app.knottag.core.kind.Signal.Beep;
import app.knottag.core.kind.Signal.Steadiness;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Looks up what was seen and heard in the kind's table; another count of beeps is another state. */
public final class SignalReader {

    private SignalReader() {}

    /**
     * What a signal means.
     *
     * @param known whether it stands in the table
     * @param holds whether it is as it should be
     */
    public record Meaning(boolean known, boolean holds, String means, String act) {}

    /** Returns what the table says, or that it says nothing and what comes nearest. */
    public static Meaning read(
            List<Signal> table, String part, String colour, Steadiness steadiness, int beeps, Beep beep) {
        var ofPart = table.stream().filter(s -> s.part().equals(part)).toList();
        Optional<Signal> exact = ofPart.stream()
                .filter(s -> distance(s, colour, steadiness, beeps, beep) == 0)
                .findFirst();
        if (exact.isPresent())
            return new Meaning(
                    true, exact.get().holds(), exact.get().means(), exact.get().act());
        String seen = Signal.words(colour, steadiness, beeps, beep);
        return ofPart.stream()
                .min(Comparator.comparingInt(s -> distance(s, colour, steadiness, beeps, beep)))
                .map(s -> new Meaning(
                        false,
                        false,
                        "Not in this kind's table: " + seen + ". Nearest is " + s.words() + ": " + s.means() + ".",
                        "Look and count once more. The same again: note it down and call the maker's service."))
                .orElse(new Meaning(false, false, "This kind has no table for its " + part + ".", ""));
    }

    /** A light that is off has no colour, so its colour never counts. */
    private static int distance(Signal s, String colour, Steadiness steadiness, int beeps, Beep beep) {
        boolean sameColour = steadiness == Steadiness.OFF || s.colour().equalsIgnoreCase(colour);
        return (s.steadiness() == steadiness ? 0 : 2)
                + (sameColour ? 0 : 3)
                + Math.min(3, Math.abs(s.beeps() - beeps))
                + (s.beeps() > 0 && beeps > 0 && s.beep() != beep ? 2 : 0);
    }
}
