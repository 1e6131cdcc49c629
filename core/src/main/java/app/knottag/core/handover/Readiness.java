package app.knottag.core.handover;

import app.knottag.core.handover.Act.What;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Grade;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** What is missing before endpoints can be handed over: the shortest list, each thing where it is settled. */
public final class Readiness {

    private Readiness() {}

    /** What a lead lets stay as it is, and why; it stands in the pack. */
    public record LetPass(String key, String reason, String by, Instant at) {}

    /**
     * The sign-off that holds.
     *
     * @param office what the office found after it, or empty while it has not looked
     */
    public record SignOff(Instant at, String by, Grade grade, Optional<Boolean> office) {}

    /**
     * What is on record of an endpoint.
     *
     * @param signOff empty while none holds
     * @param handedOver when it was handed over with the sign-off that holds
     */
    public record Known(
            long id,
            String name,
            Station station,
            Optional<SignOff> signOff,
            List<OpenState> openings,
            TagState tag,
            List<LetPass> passed,
            Optional<Instant> handedOver) {}

    /** One thing to be done, and for which endpoints. */
    public record SiteAct(What what, String title, List<Due> endpoints) {}

    /** For whom an act is to be done, with what names it there. */
    public record Due(Known known, String key) {}

    /**
     * Returns what is to be done for one endpoint. What has not come as far as its sign-off is taken to the station where it
     * waits and nothing more is asked: the rest follows from there.
     */
    public static List<Act> of(Known known, SiteClock clock) {
        var acts = new ArrayList<Act>();
        switch (known.station()) {
            case PLAN -> acts.add(act(What.ADDRESS, "", "Give it an address", "It has none yet."));
            case REGISTER ->
                acts.add(act(
                        What.REGISTER, "", "Register it", "Its label is not read or a registration is not in force."));
            case ONBOARD -> acts.add(act(What.SET_UP, "", "Set it up", "Its runbook is not done."));
            case CONFIRM -> acts.add(act(What.PROVE, "", "Prove it", "It has no sign-off that holds."));
            default -> proved(known, clock, acts);
        }
        return acts.stream().map(a -> passed(a, known.passed())).toList();
    }

    private static void proved(Known known, SiteClock clock, List<Act> acts) {
        known.signOff().ifPresent(s -> proof(s, clock, acts));
        for (var o : known.openings())
            if (!o.settled(clock.today()))
                acts.add(act(
                        What.OPENING,
                        o.key(),
                        "Close: " + o.title(),
                        OpenState.holdUp(List.of(o), clock).get(0)));
        switch (known.tag().state()) {
            case NOT_PRINTED ->
                acts.add(act(What.TAG_PRINT, "", "Print its tag and hang it", wrong(known, "No tag was printed yet.")));
            case TO_HANG ->
                acts.add(act(What.TAG_HANG, "", "Hang its tag", "It is printed; nobody has said that it hangs."));
            case HANGS_WRONG -> acts.add(act(What.TAG_WRONG, "", "Print its tag anew and change it", wrong(known, "")));
            case HANGS -> {}
        }
    }

    private static String wrong(Known known, String otherwise) {
        return known.tag().wrong().isEmpty()
                ? otherwise
                : String.join(" ", known.tag().wrong());
    }

    private static void proof(SignOff s, SiteClock clock, List<Act> acts) {
        boolean old = s.at().plus(Evidence.FRESH).isBefore(clock.now());
        String said = "Signed off " + clock.day(s.at()) + " by " + s.by() + ": "
                + s.grade().words() + ".";
        if (old)
            acts.add(act(
                    What.PROVE_AGAIN,
                    "",
                    "Prove it again",
                    said + " That is more than " + Evidence.FRESH.toDays() + " days ago."));
        else if (!s.grade().handsOver()) acts.add(act(What.PROVE_AGAIN, "", "Prove it again", said));
        if (s.office().filter(reached -> !reached).isPresent())
            acts.add(act(
                    What.OFFICE,
                    "apart",
                    "Settle it with the office",
                    "It works here, and the office does not reach it."));
        else if (s.office().isEmpty())
            acts.add(act(
                    What.OFFICE, "", "Hear the office's word", "The office has not said yet whether it reaches it."));
    }

    private static Act act(What what, String of, String title, String detail) {
        String key = what.name().toLowerCase(Locale.ROOT) + (of.isEmpty() ? "" : ":" + of);
        return new Act(what, key, title, detail, Optional.empty());
    }

    private static Act passed(Act act, List<LetPass> all) {
        return new Act(
                act.what(),
                act.key(),
                act.title(),
                act.detail(),
                act.what().canPass()
                        ? all.stream().filter(p -> p.key().equals(act.key())).findFirst()
                        : Optional.empty());
    }

    /** Whether nothing is left to do but what a lead lets stay. */
    public static boolean ready(Known known, SiteClock clock) {
        return of(known, clock).stream().allMatch(a -> a.passed().isPresent());
    }

    /** Returns what is to be done for a whole site: the same act for several endpoints is one line, in the order of the work. */
    public static List<SiteAct> of(List<Known> site, SiteClock clock) {
        var together = new LinkedHashMap<Map.Entry<What, String>, List<Due>>();
        for (var known : site)
            for (var act : of(known, clock))
                if (act.passed().isEmpty())
                    together.computeIfAbsent(Map.entry(act.what(), act.title()), k -> new ArrayList<>())
                            .add(new Due(known, act.key()));
        return together.entrySet().stream()
                .map(e -> new SiteAct(e.getKey().getKey(), e.getKey().getValue(), List.copyOf(e.getValue())))
                .sorted(Comparator.comparing(SiteAct::what).thenComparing(SiteAct::title))
                .toList();
    }

    /**
     * Something that stands open, of all endpoints that have it.
     *
     * @param one the worst of them, as it stands there
     */
    public record SiteOpening(Danger danger, String title, List<Holder> holders) {}

    /** An endpoint and how an opening stands there. */
    public record Holder(long endpoint, String name, OpenState opening) {}

    /** Returns what stands open at a site, the worst first; what is the same on several devices is one line. */
    public static List<SiteOpening> openings(List<Known> site, SiteClock clock) {
        var together = new LinkedHashMap<Map.Entry<Danger, String>, List<Holder>>();
        for (var known : site)
            for (var o : known.openings())
                if (!o.closed())
                    together.computeIfAbsent(Map.entry(o.danger(), o.title()), k -> new ArrayList<>())
                            .add(new Holder(known.id(), known.name(), o));
        var worst = Comparator.comparing((Holder h) -> !h.opening().overdue(clock.today()))
                .thenComparing(h -> h.opening().settled(clock.today()))
                .thenComparing(Holder::name);
        return together.entrySet().stream()
                .map(e -> new SiteOpening(
                        e.getKey().getKey(),
                        e.getKey().getValue(),
                        e.getValue().stream().sorted(worst).toList()))
                .sorted(Comparator.comparing(SiteOpening::danger)
                        .thenComparing(o -> -o.holders().size())
                        .thenComparing(SiteOpening::title))
                .toList();
    }
}
