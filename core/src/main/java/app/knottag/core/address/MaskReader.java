package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.Slip;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Reads masks: contiguous ones from the left (RFC 950), also written as a prefix length. */
final class MaskReader {

    private MaskReader() {}

    static Reading read(String plain, List<Note> notes, AddressContext context) {
        String bare = plain.strip();
        if (bare.matches("/?\\s*[0-9]{1,2}")) {
            int length = Integer.parseInt(bare.replaceFirst("/\\s*", ""));
            if (length > 32) return AddressReader.none(notes, AddressReader.lengthRange(plain, length));
            var mask = Ipv4Prefix.maskOf(length);
            notes.add(new Note(
                    Note.Code.PREFIX_LENGTH, "Prefix length " + length + " written as the mask " + mask + "."));
            return judged(mask, notes, context);
        }
        var cut = AddressReader.cut(plain, Purpose.MASK, notes, context);
        if (cut.finding() != null) return new Reading(null, cut.notes(), List.of(cut.finding()), cut.slip());
        return judged(cut.address(), cut.notes(), context);
    }

    private static Reading judged(Ipv4Address mask, List<Note> notes, AddressContext context) {
        Slip slip = context.expected()
                .flatMap(e -> SlipFinder.find(mask.toString(), e))
                .orElse(null);
        if (!contiguous(mask)) return new Reading(null, notes, List.of(notAMask(mask, context)), slip);
        int length = Integer.bitCount(mask.bits());
        var findings = new ArrayList<Finding>();
        if (length == 0 || length > 30)
            findings.add(Finding.of(
                    Code.MASK_WITHOUT_ROOM,
                    length == 0
                            ? "The mask 0.0.0.0 takes every address in the world for its own network."
                            : "The mask " + mask + " leaves no room for a device and its gateway."));
        context.segment()
                .filter(s -> s.prefix().prefixLength() != length)
                .ifPresent(s -> findings.add(Finding.of(
                        Code.MASK_DIFFERS,
                        "The mask of this segment is " + s.prefix().mask() + ", not " + mask + ".")));
        return new Reading(mask.toString(), notes, findings, slip);
    }

    private static boolean contiguous(Ipv4Address mask) {
        int inverted = ~mask.bits();
        return (inverted & (inverted + 1)) == 0;
    }

    private static Finding notAMask(Ipv4Address typed, AddressContext context) {
        var inverted = new Ipv4Address(~typed.bits());
        var gateway = context.segment().flatMap(Segment::gateway);
        if (gateway.filter(typed::equals).isPresent())
            return AddressReader.asking(
                    Finding.of(Code.ADDRESS_AS_MASK, typed + " is the gateway, not a mask."),
                    nearest(typed.toString(), context));
        if (contiguous(inverted))
            return AddressReader.asking(
                    Finding.of(Code.WILDCARD_MASK, typed + " is a mask turned inside out, as rule lists write it."),
                    List.of(inverted.toString()));
        if (typed.group(0) < 128)
            return AddressReader.asking(
                    Finding.of(
                            Code.ADDRESS_AS_MASK,
                            typed + " is an address, not a mask. A mask begins with 255 or nearly so."),
                    nearest(typed.toString(), context));
        return AddressReader.asking(
                Finding.of(Code.NOT_CONTIGUOUS, typed + " is not a mask: its ones must stand together on the left."),
                nearest(typed.toString(), context));
    }

    /** Returns the masks one slip away, the segment's own first; at least the segment's own when there is one. */
    static List<String> nearest(String typed, AddressContext context) {
        var own = context.segment().map(s -> s.prefix().mask().toString());
        var near = IntStream.rangeClosed(1, 30)
                .mapToObj(length -> Ipv4Prefix.maskOf(length).toString())
                .filter(mask -> own.filter(mask::equals).isPresent()
                        || SlipFinder.find(typed, mask)
                                .filter(s -> s.kind() != Slip.Kind.DIFFERENT && s.kind() != Slip.Kind.WRONG_GROUP)
                                .isPresent())
                .sorted(Comparator.comparing(
                                (String mask) -> own.filter(mask::equals).isEmpty())
                        .thenComparing(mask -> Math.abs(
                                24 - Integer.bitCount(Ipv4Address.parse(mask).bits()))))
                .limit(5)
                .toList();
        if (!near.isEmpty()) return near;
        return IntStream.of(24, 16, 25, 26, 23, 22, 8)
                .mapToObj(length -> Ipv4Prefix.maskOf(length).toString())
                .filter(mask -> SlipFinder.find(typed, mask)
                        .filter(s -> s.kind() == Slip.Kind.WRONG_GROUP)
                        .isPresent())
                .toList();
    }
}
