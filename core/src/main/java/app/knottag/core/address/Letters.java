package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Typed;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Characters that cannot stand in an IPv4 address: letters that look like a figure, and everything else. */
final class Letters {

    private static final String LETTERS = "OoQDIilZzSsGbBgqTA";
    private static final String FIGURES = "000011122556689974".substring(0, LETTERS.length());
    private static final Pattern MAC_LIKE = sixPairs("[:.-]?");

    /** What looks like a MAC. A repetition within a repetition is not read the same by every engine, so it is spelled out. */
    static Pattern sixPairs(String between) {
        return Pattern.compile("\\s*" + String.join(between, Collections.nCopies(6, "[0-9A-Fa-f]{2}")) + "\\s*");
    }

    private Letters() {}

    static Optional<Finding> judge(String plain, Purpose purpose, AddressContext context) {
        int first = -1;
        boolean allLookAlike = true, anyFigure = false;
        var mended = new StringBuilder(plain);
        for (int i = 0; i < plain.length(); i++) {
            char c = plain.charAt(i);
            anyFigure |= Typed.digit(c);
            if (Typed.digit(c) || c == ' ' || AddressText.separator(c)) continue;
            if (first < 0) first = i;
            int known = LETTERS.indexOf(c);
            if (known < 0) allLookAlike = false;
            else mended.setCharAt(i, FIGURES.charAt(known));
        }
        if (first < 0) return anyFigure ? Optional.empty() : Optional.of(noFigures(plain, purpose));
        if (allLookAlike && anyFigure && !MAC_LIKE.matcher(plain).matches())
            return Optional.of(lookAlike(plain, first, mended.toString(), purpose, context));
        String what = MAC_LIKE.matcher(plain).matches()
                ? "This looks like a MAC. Type the " + purpose.word() + " here."
                : "“" + plain.charAt(first) + "” cannot stand in an address: only figures and periods can. Type the "
                        + purpose.word() + " in figures.";
        return Optional.of(Finding.at(Code.UNREADABLE, what, first));
    }

    private static Finding noFigures(String plain, Purpose purpose) {
        return Finding.of(
                Code.UNREADABLE, "There are no figures in “" + plain.strip() + "”. Type the " + purpose.word() + ".");
    }

    private static Finding lookAlike(String plain, int at, String mended, Purpose purpose, AddressContext context) {
        var again = AddressReader.read(mended, purpose, context);
        List<String> candidates = Stream.concat(
                        Optional.ofNullable(again.value()).stream(),
                        again.findings().stream().flatMap(f -> f.candidates().stream()))
                .filter(c -> !c.contains(":"))
                .distinct()
                .toList();
        return AddressReader.asking(
                Finding.at(
                        Code.LETTER_FOR_DIGIT,
                        "The letter “" + plain.charAt(at) + "” stands where a figure belongs.",
                        at),
                candidates);
    }
}
