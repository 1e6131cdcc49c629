package app.knottag.core.runbook;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** Numbers and names as they are dictated over the phone, sign by sign, so that no letter is heard for another. */
final class Spelling {

    private Spelling() {}

    /** Code words of the letters, as radio operators the world over spell (ICAO Annex 10, volume II, 5.2.1.3). */
    private static final List<String> LETTERS = List.of(
            "alfa",
            "bravo",
            "charlie",
            "delta",
            "echo",
            "foxtrot",
            "golf",
            "hotel",
            "india",
            "juliett",
            "kilo",
            "lima",
            "mike",
            "november",
            "oscar",
            "papa",
            "quebec",
            "romeo",
            "sierra",
            "tango",
            "uniform",
            "victor",
            "whiskey",
            "x-ray",
            "yankee",
            "zulu");

    /** Returns a number, name or MAC sign by sign in words, a MAC by its bytes; empty for what has other signs. */
    static List<String> of(String text) {
        if (!text.matches("[0-9A-Za-z.-]{1,63}|[0-9A-Fa-f]{2}(:[0-9A-Fa-f]{2}){5}")) return List.of();
        return Arrays.stream(text.toLowerCase(Locale.ROOT).split(":"))
                .map(group -> group.chars().mapToObj(c -> sign((char) c)).collect(Collectors.joining(" ")))
                .toList();
    }

    private static String sign(char c) {
        if (Character.isDigit(c)) return Spoken.DIGITS.get(c - '0');
        return c == '-' ? "dash" : c == '.' ? "dot" : LETTERS.get(c - 'a');
    }
}
