package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Slip;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads prefixes: a network address with a prefix length or a mask behind it. */
final class PrefixReader {

    private static final Pattern LENGTH = Pattern.compile("(.+?)\\s*/\\s*([0-9]{1,3})\\s*");
    private static final Pattern MASK =
            Pattern.compile("(.+?)\\s*(?:/|\\s)\\s*((?:255|254|252|248|240|224|192|128)\\.[0-9.]+)\\s*");

    private PrefixReader() {}

    static Reading read(String plain, List<Note> notes, AddressContext context) {
        Matcher mask = MASK.matcher(plain), length = LENGTH.matcher(plain);
        String address;
        int prefixLength;
        if (mask.matches()) {
            var read = MaskReader.read(mask.group(2), notes, AddressContext.NONE);
            if (read.value() == null) return read;
            address = mask.group(1);
            prefixLength = Integer.bitCount(Ipv4Address.parse(read.value()).bits());
            notes.add(new Note(Note.Code.MASK_FORM, "Mask " + read.value() + " written as /" + prefixLength + "."));
        } else if (length.matches()) {
            address = length.group(1);
            prefixLength = Integer.parseInt(length.group(2));
            if (prefixLength > 32) return AddressReader.none(notes, AddressReader.lengthRange(plain, prefixLength));
        } else return withoutLength(plain, notes);
        var cut = AddressReader.cut(address, Purpose.ADDRESS, notes, AddressContext.NONE);
        if (cut.finding() != null) return prefixed(cut, prefixLength);
        return judged(cut.address(), prefixLength, cut.notes(), context);
    }

    private static Reading prefixed(AddressReader.Cut cut, int length) {
        var candidates = cut.finding().candidates().stream()
                .map(c -> Ipv4Prefix.around(Ipv4Address.parse(c), length).toString())
                .distinct()
                .toList();
        return new Reading(null, cut.notes(), List.of(cut.finding().withCandidates(candidates)), null);
    }

    private static Reading withoutLength(String plain, List<Note> notes) {
        var cut = AddressReader.cut(plain, Purpose.ADDRESS, notes, AddressContext.NONE);
        if (cut.finding() != null) return prefixed(cut, 24);
        int zeros = Math.min(24, Integer.numberOfTrailingZeros(cut.address().bits()));
        var guess = Ipv4Prefix.around(cut.address(), zeros >= 24 ? 8 : zeros >= 16 ? 16 : 24);
        return AddressReader.none(
                cut.notes(),
                AddressReader.asking(
                        Finding.of(
                                Code.NO_PREFIX_LENGTH,
                                "The prefix length is missing behind " + cut.address() + ": a slash and a number."),
                        List.of(guess.toString())));
    }

    private static Reading judged(Ipv4Address address, int length, List<Note> notes, AddressContext context) {
        var prefix = Ipv4Prefix.around(address, length);
        if (!prefix.network().equals(address))
            return AddressReader.none(
                    notes,
                    AddressReader.asking(
                            Finding.of(
                                    Code.HOST_BITS_SET,
                                    address + "/" + length
                                            + " names an address inside the network, not the network itself."),
                            List.of(prefix.toString())));
        var findings = length == 0 || length > 30
                ? List.of(Finding.of(
                        Code.MASK_WITHOUT_ROOM, "/" + length + " is no network to put devices and a gateway in."))
                : AddressJudge.judge(prefix.lowestUsable(), Purpose.RESOLVER, AddressContext.NONE);
        Slip slip = context.expected()
                .filter(e -> !e.equals(prefix.toString()))
                .flatMap(e -> SlipFinder.find(prefix.network().toString(), e.replaceFirst("/.*", ""))
                        .or(() -> Optional.of(new Slip(
                                Slip.Kind.DIFFERENT, "/" + length + " typed, " + e + " planned.", null, null))))
                .orElse(null);
        return new Reading(prefix.toString(), notes, findings, slip);
    }
}
