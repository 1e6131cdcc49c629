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
        int fixedGroups = Math.min(filled, prefix.prefixLength() / 8);
        for (int i = 0; i < fixedGroups; i++)
            if (groups.get(i).value() != prefix.network().group(i))
                return Optional.of(Finding.at(
                        Code.OTHER_NETWORK_PART,
                        cut.dotted() + " is not the beginning of " + prefix
                                + ": wrong socket, wrong VLAN or wrong site. Stop, and move the lead before typing.",
                        groups.get(i).start()));
        String message = cut.dotted() + " agrees with " + prefix + ". Type only the rest.";
        var rest = context.expected()
                .filter(e -> e.startsWith(cut.dotted()))
                .map(List::of)
                .orElse(List.of());
        return Optional.of(
                Finding.at(Code.PART_OF_ADDRESS, message, groups.get(filled).start())
                        .withCandidates(rest));
    }
}
