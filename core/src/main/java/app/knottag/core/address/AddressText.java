package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Typed;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A typed text cut into groups of figures.
 *
 * @param dotted the groups joined by periods, as written, for looking for slips
 * @param finding why the groups cannot be trusted, or null
 */
record AddressText(List<Group> groups, String dotted, List<Note> notes, Finding finding) {

    private static final String SEPARATORS = ".,:;-_/\\|";

    record Group(String text, int start) {
        int value() {
            return text.length() > 9 ? Integer.MAX_VALUE : Integer.parseInt(text);
        }
    }

    /** Reads four groups 0..255, allowing leading zeros of at most three figures a group. */
    static Optional<Ipv4Address> strict(String dotted) {
        String[] groups = dotted.split("\\.", -1);
        if (groups.length != 4) return Optional.empty();
        int bits = 0;
        for (String group : groups) {
            if (!group.matches("[0-9]{1,3}") || Integer.parseInt(group) > 255) return Optional.empty();
            bits = bits << 8 | Integer.parseInt(group);
        }
        return Optional.of(new Ipv4Address(bits));
    }

    /** Cuts a text of digits, separators and blanks only. */
    static AddressText cut(String plain) {
        var notes = new ArrayList<Note>();
        String text = withoutBlanksAroundSeparators(plain, notes);
        boolean soft = text.strip().indexOf(' ') >= 0;
        boolean hard = text.chars().anyMatch(c -> SEPARATORS.indexOf(c) >= 0);
        if (soft && hard) {
            String joined = dotted(groups(text.replace(" ", "")));
            String parted = dotted(groups(text));
            if (strict(joined).isPresent() || strict(parted).isEmpty())
                return new AddressText(groups(text), parted, notes, blankInGroup(text, joined));
        }
        if (soft) notes.add(new Note(Note.Code.BLANKS, "Blanks between the groups read as periods."));
        text.chars()
                .filter(c -> c != '.' && SEPARATORS.indexOf(c) >= 0)
                .findFirst()
                .ifPresent(c -> notes.add(new Note(
                        Note.Code.OTHER_SEPARATORS, "“" + (char) c + "” between the groups read as a period.")));
        var groups = new ArrayList<>(groups(text));
        boolean trailing =
                groups.size() > 1 && groups.get(groups.size() - 1).text().isEmpty();
        if (trailing && groups.size() == 5) {
            groups.remove(4);
            notes.add(new Note(Note.Code.TRAILING_PERIOD, "The period at the end was left out."));
        }
        return new AddressText(List.copyOf(groups), dotted(groups), notes, null);
    }

    private static Finding blankInGroup(String text, String joined) {
        int blank = text.strip().indexOf(' ') + text.indexOf(text.strip());
        var finding =
                Finding.at(Code.BLANK_IN_GROUP, "There is a blank among the figures: “" + text.strip() + "”.", blank);
        return strict(joined)
                .map(a -> AddressReader.asking(finding, List.of(a.toString())))
                .orElse(finding);
    }

    /** Keeps every position: a blank next to a separator becomes a character that is skipped later. */
    private static String withoutBlanksAroundSeparators(String plain, List<Note> notes) {
        char[] chars = plain.toCharArray();
        int first = 0, last = chars.length - 1;
        while (first < chars.length && chars[first] == ' ') first++;
        while (last >= 0 && chars[last] == ' ') last--;
        boolean skipped = false;
        for (int i = first; i <= last; i++) {
            if (chars[i] != ' ') continue;
            int left = i, right = i;
            while (chars[left] == ' ' || chars[left] == SKIP) left--;
            while (chars[right] == ' ') right++;
            boolean extraBlank = chars[i - 1] == ' ';
            if (SEPARATORS.indexOf(chars[left]) >= 0 || SEPARATORS.indexOf(chars[right]) >= 0 || extraBlank) {
                skipped |= !extraBlank;
                chars[i] = SKIP;
            }
        }
        if (skipped) notes.add(new Note(Note.Code.BLANKS, "Blanks beside the periods were left out."));
        return new String(chars);
    }

    private static final char SKIP = '\0';

    private static List<Group> groups(String text) {
        var groups = new ArrayList<Group>();
        int end = text.stripTrailing().length();
        int start = text.length() - text.stripLeading().length();
        var figures = new StringBuilder();
        int groupStart = start;
        for (int i = start; i <= end; i++) {
            char c = i == end ? '.' : text.charAt(i);
            if (Typed.digit(c)) {
                if (figures.isEmpty()) groupStart = i;
                figures.append(c);
            } else if (c != SKIP) {
                groups.add(new Group(figures.toString(), figures.isEmpty() ? i : groupStart));
                figures.setLength(0);
            }
        }
        return groups;
    }

    private static String dotted(List<Group> groups) {
        return String.join(".", groups.stream().map(Group::text).toList());
    }

    static boolean separator(char c) {
        return SEPARATORS.indexOf(c) >= 0;
    }
}
