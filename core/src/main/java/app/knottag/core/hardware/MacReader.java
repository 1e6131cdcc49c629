package app.knottag.core.hardware;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Slip;
import app.knottag.core.reading.Typed;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Reads MACs in every usual separator, case and grouping. Letters that cannot be hexadecimal are asked about, never
 * replaced silently; group addresses and made-up ones are named.
 */
public final class MacReader {

    private static final Pattern LABEL_WORD = Pattern.compile(
            "^\\s*(?:(?:W?LAN|WIFI|ETH(?:ERNET)?|WIRED|HW)[ _-]*)?(?:MAC(?:[ _-]*(?:ADDRESS|ADDR\\.?|ID))?|HWADDR)\\s*[:=#]?\\s*",
            Pattern.CASE_INSENSITIVE);
    private static final String SEPARATORS = ":-. _/,;";
    private static final String IMPOSSIBLE = "GILOQSZ";
    private static final String MEANT = "6110052";

    private MacReader() {}

    /**
     * Reads a text and judges it against what is known.
     *
     * @param text as typed; null counts as empty
     * @param known MACs of the other interfaces on record
     * @param expected MAC that should be read here, when there is one
     */
    public static Reading read(String text, Collection<Mac> known, Optional<Mac> expected) {
        if (text == null || text.isBlank())
            return none(Finding.of(Code.EMPTY, "Nothing was typed. Type the MAC from the label."));
        if (text.length() > Typed.MAX_LENGTH)
            return none(
                    Finding.of(Code.TOO_LONG, text.length() + " characters are too many for one MAC. Type it alone."));
        var typed = Typed.of(text);
        var notes = new ArrayList<Note>();
        if (typed.wide()) notes.add(new Note(Note.Code.FULL_WIDTH, "Full-width characters read as plain ones."));
        String plain = typed.plain();
        var label = LABEL_WORD.matcher(plain);
        int from = 0;
        if (label.find() && label.end() < plain.length()) {
            from = label.end();
            notes.add(new Note(Note.Code.LABEL_WORD, "The word before the figures was left out."));
        }
        var digits = Digits.of(plain, from, SEPARATORS);
        if (digits.strangeAt() >= 0) return strange(plain, digits, notes, known, expected);
        return digits.padded().length() == 12
                ? judged(new Mac(Long.parseLong(digits.padded(), 16)), noted(digits, notes), known, expected)
                : wrongLength(digits, notes, known, expected);
    }

    private static List<Note> noted(Digits digits, List<Note> notes) {
        if (digits.shortGroups())
            notes.add(new Note(
                    Note.Code.SHORT_GROUPS, "Single figures read with a zero in front, as some tables print them."));
        else if (digits.irregular())
            notes.add(new Note(
                    Note.Code.IRREGULAR_GROUPS, "The groups are uneven; the twelve figures were read in order."));
        return notes;
    }

    private static Reading strange(
            String plain, Digits digits, List<Note> notes, Collection<Mac> known, Optional<Mac> expected) {
        char c = plain.charAt(digits.strangeAt());
        int index = IMPOSSIBLE.indexOf(Character.toUpperCase(c));
        if (index < 0)
            return none(
                    notes,
                    Finding.at(
                            Code.UNREADABLE,
                            "“" + c + "” cannot stand in a MAC: only 0 to 9 and A to F can.",
                            digits.strangeAt()));
        var mended = new StringBuilder(plain);
        for (int i = digits.strangeAt(); i < plain.length(); i++) {
            int known1 = IMPOSSIBLE.indexOf(Character.toUpperCase(plain.charAt(i)));
            if (known1 >= 0) mended.setCharAt(i, MEANT.charAt(known1));
        }
        var again = Digits.of(mended.toString(), digits.from(), SEPARATORS);
        var candidates = new LinkedHashSet<Mac>();
        if (again.strangeAt() < 0 && again.padded().length() == 12) {
            var likely = new Mac(Long.parseLong(again.padded(), 16));
            // A text with one misread letter often has another: the expected and the known come first when close.
            expected.filter(e -> e.digitsApart(likely) <= 2).ifPresent(candidates::add);
            candidates.add(likely);
            known.stream().filter(k -> k.digitsApart(likely) <= 1).limit(2).forEach(candidates::add);
        }
        String message = "“" + c + "” cannot stand in a MAC; " + MEANT.charAt(index)
                + " looks like it. Look at the label again, also for B and 8, D and 0.";
        return none(notes, asking(Finding.at(Code.IMPOSSIBLE_CHARACTER, message, digits.strangeAt()), candidates));
    }

    private static Reading wrongLength(Digits digits, List<Note> notes, Collection<Mac> known, Optional<Mac> expected) {
        String hex = digits.hex();
        var candidates = new LinkedHashSet<Mac>();
        expected.filter(e -> oneEditApart(hex, hex(e))).ifPresent(candidates::add);
        known.stream().filter(k -> oneEditApart(hex, hex(k))).forEach(candidates::add);
        if (hex.length() == 13)
            for (int i = digits.firstSuspect(); i + 1 < digits.lastSuspect(); i++)
                if (hex.charAt(i) == hex.charAt(i + 1))
                    candidates.add(new Mac(Long.parseLong(hex.substring(0, i) + hex.substring(i + 1), 16)));
        boolean extended = hex.length() == 16 && hex.regionMatches(true, 6, "FFFE", 0, 4);
        String message = extended
                ? "Sixteen figures with FFFE in the middle: an identifier made from a MAC (EUI-64), not the MAC itself."
                : hex.length() + (hex.length() == 1 ? " figure" : " figures") + " of a MAC; it has twelve.";
        if (extended)
            candidates.add(new Mac((Long.parseLong(hex.substring(0, 6), 16) ^ 0x020000) << 24
                    | Long.parseLong(hex.substring(10), 16)));
        var slip = expected.map(e -> lengthSlip(hex, hex(e))).orElse(null);
        return new Reading(
                null, notes, List.of(asking(Finding.at(Code.WRONG_LENGTH, message, digits.oddAt()), candidates)), slip);
    }

    private static Slip lengthSlip(String typed, String planned) {
        if (typed.length() == 11 && oneEditApart(typed, planned))
            return new Slip(Slip.Kind.DROPPED, "A figure is missing.", firstDifference(typed, planned), null);
        if (typed.length() == 13 && oneEditApart(typed, planned))
            return new Slip(Slip.Kind.DOUBLED, "A figure too many.", firstDifference(typed, planned), null);
        return new Slip(Slip.Kind.DIFFERENT, "Not the expected MAC; no single slip explains it.", null, null);
    }

    private static Reading judged(Mac mac, List<Note> notes, Collection<Mac> known, Optional<Mac> expected) {
        var findings = new ArrayList<Finding>();
        if (mac.bits() == 0)
            findings.add(Finding.of(Code.ALL_ZEROS, "All zeros: the device did not tell its MAC. Read the label."));
        else if (mac.bits() == 0xFFFF_FFFF_FFFFL)
            findings.add(Finding.of(Code.ALL_ONES, "All ones call every device at once; none has that MAC."));
        else if (mac.group())
            findings.add(Finding.of(
                    Code.GROUP_ADDRESS,
                    mac + " is the address of a group, not of one device. Look at the second figure again."));
        else if (mac.locallyAdministered())
            findings.add(Finding.of(
                    Code.LOCALLY_ADMINISTERED,
                    mac
                            + " was made up by the device: private and changing, it will not stay registered. "
                            + "Switch the private MAC off for this network, or read the label."));
        if (known.contains(mac) && expected.filter(mac::equals).isEmpty())
            findings.add(Finding.of(Code.KNOWN, mac + " is already on record for another endpoint."));
        else
            known.stream()
                    .filter(k -> k.digitsApart(mac) == 1 || swapped(hex(mac), hex(k)))
                    .sorted((a, b) -> a.digitsApart(mac) - b.digitsApart(mac))
                    .findFirst()
                    .filter(k -> expected.isEmpty())
                    .ifPresent(k -> findings.add(Finding.of(
                            Code.NEAR_KNOWN,
                            (k.digitsApart(mac) == 1 ? "Only one figure" : "Two swapped figures") + " away from " + k
                                    + ", which is on record. Look at the label again.")));
        var slip = expected.filter(e -> !e.equals(mac)).map(e -> slip(mac, e)).orElse(null);
        if (slip != null && slip.kind() == Slip.Kind.NEIGHBOUR_INTERFACE)
            findings.add(Finding.of(Code.NEIGHBOUR_INTERFACE, slip.message()));
        return new Reading(mac.toString(), notes, findings, slip);
    }

    private static Slip slip(Mac mac, Mac expected) {
        String typed = hex(mac), planned = hex(expected);
        int at = firstDifference(typed, planned);
        if (swapped(typed, planned))
            return new Slip(
                    Slip.Kind.SWAPPED,
                    "Two figures swapped: " + typed.substring(at, at + 2) + ", expected "
                            + planned.substring(at, at + 2) + ".",
                    at,
                    at / 2 + 1);
        if (mac.digitsApart(expected) == 1 && lookAlike(typed.charAt(at), planned.charAt(at)))
            return new Slip(
                    Slip.Kind.LOOK_ALIKE,
                    typed.charAt(at) + " read for " + planned.charAt(at) + "; they look alike.",
                    at,
                    at / 2 + 1);
        if (mac.neighbourOf(expected))
            return new Slip(
                    Slip.Kind.NEIGHBOUR_INTERFACE,
                    "A neighbour of " + expected
                            + ": most likely another interface of the same box. Register the one that is plugged in.",
                    at,
                    at / 2 + 1);
        if (mac.digitsApart(expected) == 1)
            return new Slip(
                    Slip.Kind.WRONG_DIGIT,
                    typed.charAt(at) + " typed, expected " + planned.charAt(at) + ".",
                    at,
                    at / 2 + 1);
        return new Slip(Slip.Kind.DIFFERENT, mac + " is another MAC than the expected " + expected + ".", null, null);
    }

    /** Whether they differ by two neighbouring figures that stand the other way round. */
    private static boolean swapped(String a, String b) {
        int at = firstDifference(a, b);
        return at < 11
                && a.charAt(at) == b.charAt(at + 1)
                && a.charAt(at + 1) == b.charAt(at)
                && a.substring(at + 2).equals(b.substring(at + 2));
    }

    private static boolean lookAlike(char a, char b) {
        return "B8 8B D0 0D".contains("" + a + b);
    }

    private static int firstDifference(String a, String b) {
        int at = 0;
        while (at < a.length() && at < b.length() && Character.toUpperCase(a.charAt(at)) == b.charAt(at)) at++;
        return at;
    }

    private static boolean oneEditApart(String a, String b) {
        if (Math.abs(a.length() - b.length()) != 1) return false;
        String longer = a.length() > b.length() ? a : b, shorter = a.length() > b.length() ? b : a;
        for (int i = 0; i < longer.length(); i++)
            if ((longer.substring(0, i) + longer.substring(i + 1)).equalsIgnoreCase(shorter)) return true;
        return false;
    }

    private static String hex(Mac mac) {
        return mac.toString().replace(":", "");
    }

    private static Finding asking(Finding finding, Collection<Mac> candidates) {
        var texts = candidates.stream().map(Mac::toString).limit(5).toList();
        return texts.isEmpty()
                ? finding
                : new Finding(
                        finding.code(),
                        finding.message() + " Did you mean " + texts.get(0) + "?",
                        finding.position(),
                        texts);
    }

    private static Reading none(Finding finding) {
        return none(List.of(), finding);
    }

    private static Reading none(List<Note> notes, Finding finding) {
        return new Reading(null, notes, List.of(finding), null);
    }
}
