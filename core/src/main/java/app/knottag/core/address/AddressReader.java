package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Slip;
import app.knottag.core.reading.Typed;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads what people and device screens really produce where an address, mask or prefix belongs. Accepts commas,
 * blanks, zero-padded groups, twelve bare digits, full-width digits and a trailing period, and says so; leading zeros
 * are decimal, never base eight. Never guesses: a text with more than one meaning gets candidates and no value.
 */
public final class AddressReader {

    private static final Pattern WITH_LENGTH = Pattern.compile("(.*[0-9].*?)\\s*/\\s*([0-9]{1,3})\\s*");
    private static final Pattern MAC_LIKE = Letters.sixPairs("[:-]");
    private static final String[] COUNTS = {"No", "One", "Two", "Three", "Four", "Five", "Six", "Seven", "Eight"};

    private AddressReader() {}

    /**
     * Reads a text for its purpose and judges it against what is known.
     *
     * @param text as typed; null counts as empty
     */
    public static Reading read(String text, Purpose purpose, AddressContext context) {
        if (text == null || text.isBlank())
            return none(Finding.of(Code.EMPTY, "Nothing was typed. Type the " + purpose.word() + "."));
        if (text.length() > Typed.MAX_LENGTH)
            return none(Finding.of(
                    Code.TOO_LONG,
                    text.length() + " characters are too many for one " + purpose.word() + ". Type it alone."));
        var typed = Typed.of(text);
        var notes = new ArrayList<Note>();
        if (typed.wide()) notes.add(new Note(Note.Code.FULL_WIDTH, "Full-width characters read as plain ones."));
        return switch (purpose) {
            case MASK -> MaskReader.read(typed.plain(), notes, context);
            case PREFIX -> PrefixReader.read(typed.plain(), notes, context);
            default -> address(typed.plain(), purpose, notes, context);
        };
    }

    private static Reading address(String plain, Purpose purpose, List<Note> notes, AddressContext context) {
        if (looksIpv6(plain)) return ipv6(plain.strip(), notes, context);
        Matcher withLength = WITH_LENGTH.matcher(plain);
        if (withLength.matches() && !withLength.group(1).contains("/")) {
            int length = Integer.parseInt(withLength.group(2));
            var planned = context.segment().map(s -> s.prefix().prefixLength());
            if (length > 32) return none(notes, lengthRange(plain, length));
            if (planned.filter(p -> p != length).isPresent())
                return none(
                        notes,
                        Finding.at(
                                Code.PREFIX_LENGTH_DIFFERS,
                                "The text says /" + length + ", this segment is /" + planned.get() + ".",
                                withLength.start(2)));
            notes.add(new Note(Note.Code.PREFIX_LENGTH, "The prefix length /" + length + " was left out."));
            plain = withLength.group(1);
        }
        var cut = cut(plain, purpose, notes, context);
        if (cut.finding() != null) return new Reading(null, cut.notes(), List.of(cut.finding()), cut.slip());
        var address = cut.address();
        var findings = AddressJudge.judge(address, purpose, context);
        boolean unsure = findings.stream().anyMatch(f -> !f.candidates().isEmpty());
        return new Reading(unsure ? null : address.toString(), cut.notes(), findings, cut.slip());
    }

    /** A text cut into four groups, or the finding that forbids it. */
    record Cut(Ipv4Address address, List<Note> notes, Finding finding, Slip slip) {}

    static Cut cut(String plain, Purpose purpose, List<Note> notes, AddressContext context) {
        var strange = Letters.judge(plain, purpose, context);
        if (strange.isPresent()) return new Cut(null, notes, strange.get(), null);
        var cut = AddressText.cut(plain);
        notes.addAll(cut.notes());
        var slip = slip(cut.dotted(), context);
        var finding = Optional.ofNullable(cut.finding()).or(() -> GroupJudge.judge(cut, purpose, context));
        if (finding.isPresent()) return new Cut(null, notes, finding.get(), slip);
        var address = AddressText.strict(padded(cut)).orElseThrow();
        noteZeros(cut, address, notes);
        return new Cut(address, notes, null, slip(address.toString(), context));
    }

    private static String padded(AddressText cut) {
        return cut.groups().size() == 1 ? cut.dotted().replaceAll("([0-9]{3})(?=.)", "$1.") : cut.dotted();
    }

    private static Slip slip(String dotted, AddressContext context) {
        return context.expected()
                .flatMap(expected -> SlipFinder.find(dotted, expected))
                .orElse(null);
    }

    private static void noteZeros(AddressText cut, Ipv4Address address, List<Note> notes) {
        if (cut.groups().size() == 1)
            notes.add(new Note(Note.Code.ZERO_PADDED, "Twelve figures read as four groups of three: " + address + "."));
        String written = padded(cut);
        var groups = List.of(written.split("\\."));
        if (groups.stream().noneMatch(g -> g.length() > 1 && g.startsWith("0"))) return;
        String both = baseEight(written, groups, address);
        notes.add(
                new Note(Note.Code.LEADING_ZEROS, "Zeros in front of a group were left out: " + address + "." + both));
    }

    /** Says what software makes of it that takes a zero in front for base eight; nothing when it makes the same. */
    private static String baseEight(String written, List<String> groups, Ipv4Address decimal) {
        var readings = new ArrayList<String>();
        for (String g : groups) {
            boolean octal = g.length() > 1 && g.startsWith("0");
            if (octal && !g.matches("[0-7]+"))
                return " Software that takes a zero in front for base eight would refuse " + written
                        + ". Type it without them.";
            readings.add("" + Integer.parseInt(g, octal ? 8 : 10));
        }
        String read = String.join(".", readings);
        return read.equals(decimal.toString())
                ? ""
                : " Software that takes a zero in front for base eight would read " + written + " as " + read
                        + ". Type it without them.";
    }

    private static boolean looksIpv6(String plain) {
        String text = plain.strip();
        if (MAC_LIKE.matcher(text).matches() || !text.matches("[0-9A-Fa-f:.]+(%\\w+)?")) return false;
        return text.contains("::") || text.chars().filter(c -> c == ':').count() == 7;
    }

    private static Reading ipv6(String text, List<Note> notes, AddressContext context) {
        var read = Ipv6Address.read(text.replaceFirst("%.*", ""));
        if (read.isEmpty())
            return none(notes, Finding.of(Code.UNREADABLE, "“" + text + "” is neither an IPv4 nor an IPv6 address."));
        var address = read.get();
        notes.add(new Note(Note.Code.IPV6, "Read as an IPv6 address (RFC 4291)."));
        var findings = new ArrayList<Finding>();
        if (address.unspecified()) findings.add(Finding.of(Code.UNSPECIFIED, "“::” stands for no address at all."));
        if (address.loopback())
            findings.add(Finding.of(Code.LOOPBACK, "::1 always means the device itself; no other can reach it."));
        if (address.multicast())
            findings.add(Finding.of(Code.MULTICAST, "That is a multicast address; a device cannot have it."));
        if (address.linkLocal())
            findings.add(
                    Finding.of(Code.LINK_LOCAL, "That address is only good on its own cable; no router passes it."));
        context.segment()
                .ifPresent(s -> findings.add(Finding.of(
                        Code.OUTSIDE_SEGMENT,
                        "This segment has IPv4 addresses, " + s.prefix() + ". Type one of those.")));
        return new Reading(address.toString(), notes, findings, null);
    }

    static Finding lengthRange(String plain, int length) {
        return Finding.at(
                Code.PREFIX_LENGTH_RANGE,
                "A prefix length runs from 0 to 32; /" + length + " was typed.",
                plain.indexOf('/') + 1);
    }

    static Reading none(Finding finding) {
        return none(List.of(), finding);
    }

    static Reading none(List<Note> notes, Finding finding) {
        return new Reading(null, notes, List.of(finding), null);
    }

    static String count(int count) {
        return count < COUNTS.length ? COUNTS[count] : "" + count;
    }

    /** Appends the likeliest candidate as a question. */
    static Finding asking(Finding finding, List<String> candidates) {
        if (candidates.isEmpty()) return finding;
        String question = " Did you mean " + candidates.get(0) + "?";
        return new Finding(finding.code(), finding.message() + question, finding.position(), candidates);
    }
}
