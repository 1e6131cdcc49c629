package app.knottag.core.address;

import app.knottag.core.address.AddressText.Group;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Judges the number and size of the groups of a typed address; empty when they are four groups 0..255. */
final class GroupJudge {

    private GroupJudge() {}

    static Optional<Finding> judge(AddressText cut, Purpose purpose, AddressContext context) {
        var part = purpose == Purpose.MASK ? Optional.<Finding>empty() : PartOfAddress.judge(cut, context);
        return part.or(() -> find(cut, purpose).map(f -> AddressReader.asking(f, candidates(cut, purpose, context))));
    }

    private static List<String> candidates(AddressText cut, Purpose purpose, AddressContext context) {
        return purpose == Purpose.MASK
                ? MaskReader.nearest(cut.dotted(), context)
                : Candidates.forText(cut.dotted(), context);
    }

    private static Optional<Finding> find(AddressText cut, Purpose purpose) {
        List<Group> groups = cut.groups();
        if (groups.size() == 1) return bare(cut, purpose);
        for (int i = 0; i < groups.size(); i++)
            if (groups.get(i).text().isEmpty())
                return Optional.of(Finding.at(
                        Code.EMPTY_GROUP,
                        "Nothing stands in group " + (i + 1) + " of " + cut.dotted() + ".",
                        groups.get(i).start()));
        if (groups.size() > 4)
            return Optional.of(Finding.at(
                    Code.TOO_MANY_GROUPS,
                    countMessage(cut, purpose),
                    groups.get(4).start()));
        var big = groups.stream().filter(g -> g.value() > 255).findFirst();
        if (groups.size() < 4)
            return Optional.of(Finding.at(
                    Code.TOO_FEW_GROUPS,
                    countMessage(cut, purpose),
                    big.orElse(groups.get(groups.size() - 1)).start()));
        if (big.isPresent())
            return Optional.of(Finding.at(
                    Code.GROUP_TOO_BIG,
                    "A group runs from 0 to 255; " + big.get().text() + " was typed in " + cut.dotted() + ".",
                    big.get().start()));
        return groups.stream()
                .filter(g -> g.text().length() > 3)
                .findFirst()
                .map(g -> Finding.at(
                        Code.GROUP_TOO_LONG,
                        "A group has at most three figures; " + g.text() + " was typed in " + cut.dotted() + ".",
                        g.start()));
    }

    private static String countMessage(AddressText cut, Purpose purpose) {
        String article = purpose == Purpose.ADDRESS ? "An address" : "A " + purpose.word();
        return AddressReader.count(cut.groups().size()) + " groups of figures: " + cut.dotted() + ". " + article
                + " has four.";
    }

    private static Optional<Finding> bare(AddressText cut, Purpose purpose) {
        Group all = cut.groups().get(0);
        String figures = all.text();
        if (figures.length() == 12
                && AddressText.strict(figures.replaceAll("([0-9]{3})(?=.)", "$1."))
                        .isPresent()) return Optional.empty();
        String article = purpose == Purpose.ADDRESS ? "an address" : "a " + purpose.word();
        String message = figures.length() <= 3
                ? "Only one group of figures: " + figures + ". "
                        + article.substring(0, 1).toUpperCase(Locale.ROOT) + article.substring(1) + " has four."
                : "No periods in " + figures + ". They part " + article + " into four groups.";
        return Optional.of(
                Finding.at(figures.length() <= 3 ? Code.TOO_FEW_GROUPS : Code.MISSING_PERIODS, message, all.start()));
    }
}
