package app.knottag.core.address;

import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import java.util.List;
import java.util.Optional;

/**
 * The part of an address that a device fills in by itself, one to three groups ended by a period: equal to the plan,
 * only the rest is typed; different, the lead is in another network and nothing should be typed at all.
 */
final class PartOfAddress {

    private PartOfAddress() {}

    static Optional<Finding> judge(AddressText cut, AddressContext context) {
        var groups = cut.groups();
        int filled = groups.size() - 1;
        boolean part = filled >= 1
                && filled <= 3
                && groups.get(filled).text().isEmpty()
                && groups.subList(0, filled).stream().allMatch(g -> !g.text().isEmpty() && g.value() <= 255);
        if (!part || context.segment().isEmpty()) return Optional.empty();
        var prefix = context.segment().get().prefix();
        int fixed = Math.min(filled * 8, prefix.prefixLength());
        for (int i = 0; i < filled; i++) {
            // Of a group that the prefix length cuts only its first bits are the network's.
            int bits = Math.min(8, fixed - i * 8);
            if (bits > 0
                    && groups.get(i).value() >> 8 - bits != prefix.network().group(i) >> 8 - bits)
                return Optional.of(Finding.at(
                        Code.OTHER_NETWORK_PART,
                        cut.dotted() + " is not the beginning of " + prefix
                                + ": wrong socket, wrong VLAN or wrong site. Stop, and move the lead before typing.",
                        groups.get(i).start()));
        }
        boolean otherBeginning =
                context.expected().filter(x -> !x.startsWith(cut.dotted())).isPresent();
        String message = cut.dotted()
                + (otherBeginning
                        ? " lies in " + prefix + ", but " + context.expected().get()
                                + " begins otherwise. Type all of it."
                        : " agrees with " + prefix + ". Type only the rest.");
        var rest = context.expected()
                .filter(e -> e.startsWith(cut.dotted()))
                .map(List::of)
                .orElse(List.of());
        return Optional.of(
                Finding.at(Code.PART_OF_ADDRESS, message, groups.get(filled).start())
                        .withCandidates(rest));
    }
}
