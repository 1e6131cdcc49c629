package app.knottag.core.visit;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Why somebody is to do this and nothing else: sentences that hold at one moment, whoever has taken what. */
final class Because {

    /** What can be missing for a turn. */
    enum Lack {
        BENCH,
        TOOL,
        LINE
    }

    private final Brief brief;
    private final Standing standing;

    Because(Brief brief, Standing standing) {
        this.brief = brief;
        this.standing = standing;
    }

    /** A turn that another has by the plan, or nobody. */
    String another(int owner, boolean ownLater) {
        String own =
                ownLater ? "Your own next turn cannot be begun yet, and " : "You have no turn of your own left, and ";
        return own
                + (owner == Dispatch.ANYBODY
                        ? "this is not in anybody's turns."
                        : "this one waits for " + name(owner) + ", who " + has(owner) + ".");
    }

    private String has(int person) {
        var who = standing.people().get(person);
        if (who.gone()) return "has left";
        var held = brief.units().stream().filter(u -> has(person, u)).findFirst();
        if (held.isPresent())
            return who.told()
                    ? "is to do " + held.get().name() + " first"
                    : "has " + held.get().name() + " in hand";
        return Window.earliest(brief.hands().get(person).there(), standing.now(), 1) == standing.now()
                ? "cannot begin it now"
                : "is not there now";
    }

    private boolean has(int person, VisitUnit unit) {
        return standing.of(unit)
                .filter(p -> p.by().isPresent() && p.by().getAsInt() == person)
                .isPresent();
    }

    /**
     * Nothing is open for this person now: what is left waits for something else, is for others to begin, or in other hands.
     *
     * @param left what this person may do some of
     */
    String nothingYet(List<VisitUnit> left) {
        var waiting = left.stream().filter(u -> before(u).isPresent()).findFirst();
        if (waiting.isPresent()) {
            var first = before(waiting.get()).orElseThrow();
            return (all(left, first) ? "Everything else" : waiting.get().name()) + " waits for " + first.name() + ".";
        }
        var others = IntStream.range(0, brief.hands().size())
                .filter(p -> left.stream().anyMatch(u -> has(p, u)))
                .boxed()
                .toList();
        if (others.isEmpty()) return left.get(0).name() + " is for you after “" + title(left.get(0)) + "” is done.";
        String names = others.stream().map(this::name).collect(Collectors.joining(" and "));
        if (others.stream().anyMatch(p -> standing.people().get(p).told())) return "What is left is for " + names + ".";
        return names + (others.size() == 1 ? " has" : " have") + " in hand what is left.";
    }

    private Optional<VisitUnit> before(VisitUnit unit) {
        return unit.after().stream()
                .filter(standing.units()::containsKey)
                .map(u -> brief.units().get(brief.indexOf(u)))
                .findFirst();
    }

    private static boolean all(List<VisitUnit> left, VisitUnit first) {
        return left.stream().allMatch(u -> u.id() == first.id() || u.after().contains(first.id()));
    }

    private String title(VisitUnit unit) {
        return unit.stretches().get(standing.of(unit).orElseThrow().next()).title();
    }

    /** It runs by itself until it can be gone on with. */
    String runs(VisitUnit next, boolean allRun) {
        boolean nobodyWorks = standing.units().values().stream().allMatch(p -> p.by().isEmpty());
        return allRun && nobodyWorks
                ? "Everything runs by itself. " + next.name() + " is the next to look at."
                : next.name() + " still runs by itself, and is the next for you.";
    }

    /** It waits for hours of the person or of its place. */
    String hours(int person, VisitUnit next, int stretch, int at) {
        int hands = next.stretches().get(stretch).hands().usual();
        int there = Window.earliest(brief.hands().get(person).there(), standing.now(), hands);
        return next.name() + " is next, as soon as " + (there == at ? "you are there." : place(next) + " is free.");
    }

    String noHours(VisitUnit unit) {
        return "No hours are left in which you are there and " + place(unit) + " is free for " + unit.name() + ".";
    }

    /** Somebody is at its site, and this person is not. */
    String there(VisitUnit unit, int owner) {
        return owner == Dispatch.ANYBODY
                ? "Something here comes before the drive to " + unit.name() + "."
                : unit.name() + " is left to " + name(owner) + ", who is there.";
    }

    String lacks(VisitUnit unit, Lack lack) {
        return switch (lack) {
            case BENCH -> "The bench is full: one that stands there must be done before " + unit.name() + ".";
            case TOOL -> "“" + unit.tool() + "” is in other hands, and " + unit.name() + " needs it.";
            case LINE -> "The line is full of downloads, and " + unit.name() + " needs it.";
        };
    }

    private static String place(VisitUnit unit) {
        return unit.place().isEmpty() ? "its place" : unit.place();
    }

    private String name(int person) {
        return brief.hands().get(person).name();
    }
}
