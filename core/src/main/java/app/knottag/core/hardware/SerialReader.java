package app.knottag.core.hardware;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Typed;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/** Reads serials and judges them by the pattern that the kind of endpoint is known to have. */
public final class SerialReader {

    private static final String LOOK_ALIKES = "O0 0O I1 1I L1 S5 5S B8 8B Z2 2Z";
    private static final Pattern ALLOWED = Pattern.compile("[A-Z0-9](?:[A-Z0-9./ -]{0,38}[A-Z0-9])?");

    private SerialReader() {}

    /**
     * Reads a serial.
     *
     * @param pattern what serials of this kind look like (RE2 syntax, linear time), or empty when not known
     * @param known serials of the other endpoints on record
     */
    public static Reading read(String text, String pattern, Collection<String> known) {
        if (text == null || text.isBlank())
            return none(Finding.of(Code.EMPTY, "Nothing was typed. Type the serial from the label."));
        String serial = Typed.of(text).plain().strip().toUpperCase(Locale.ROOT);
        if (!ALLOWED.matcher(serial).matches())
            return none(Finding.of(
                    Code.UNREADABLE, "A serial has up to 40 letters, figures, hyphens, periods and slashes."));
        var notes = new ArrayList<Note>();
        var findings = new ArrayList<Finding>();
        var looks = com.google.re2j.Pattern.compile(pattern);
        if (!pattern.isEmpty() && !looks.matches(serial)) {
            var alike = new LinkedHashSet<String>();
            lookAlikes(serial, looks, alike);
            if (!alike.isEmpty())
                return none(new Finding(
                        Code.OTHER_PATTERN,
                        serial + " does not look like a serial of this kind. Did you mean "
                                + alike.iterator().next() + "?",
                        null,
                        List.copyOf(alike)));
            findings.add(
                    Finding.of(
                            Code.OTHER_PATTERN,
                            serial
                                    + " does not look like a serial of this kind. Look at the label again: is it the right model?"));
        }
        if (known.contains(serial))
            findings.add(Finding.of(Code.KNOWN, serial + " is already on record for another endpoint."));
        return new Reading(serial, notes, findings, null);
    }

    private static void lookAlikes(String serial, com.google.re2j.Pattern looks, LinkedHashSet<String> found) {
        for (int i = 0; i < serial.length(); i++)
            for (String pair : LOOK_ALIKES.split(" ")) {
                if (pair.charAt(0) != serial.charAt(i)) continue;
                String swapped = serial.substring(0, i) + pair.charAt(1) + serial.substring(i + 1);
                if (looks.matches(swapped)) found.add(swapped);
            }
    }

    private static Reading none(Finding finding) {
        return Reading.refused(finding);
    }
}
