package app.knottag.core.watch;

import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.ServiceJudge;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** What the checks of one device say of it when they are made at night, while much is switched off. */
public final class Unwell {

    private Unwell() {}

    /**
     * Says what is wrong with a device; a device that does not answer first, then what fails of itself, and last what fails as
     * well when its partner is only switched off. Who does not answer at all may be off: nobody can say that it is broken.
     */
    public static List<Seen> of(long endpoint, String name, List<CheckResult> results) {
        var failed = results.stream().filter(CheckResult::failed).toList();
        var off = failed.stream().filter(f -> f.check() == Check.ANSWERS).findFirst();
        var itself = failed.stream().filter(f -> !f.check().failsWhenOff()).findFirst();
        var broken = off.or(() -> itself)
                .or(() -> failed.stream().findFirst())
                .map(f -> new Seen(
                        "device", f.check().name(), endpoint, title(name, f.check()), detail(f, failed.size())));
        return Stream.concat(broken.stream(), clock(endpoint, name, results).stream())
                .toList();
    }

    /** What it tells of its own clock by the way is seen as well, whatever else holds. */
    private static Optional<Seen> clock(long endpoint, String name, List<CheckResult> results) {
        return results.stream()
                .flatMap(r -> ServiceJudge.wrongClock(r).stream())
                .findFirst()
                .map(
                        says -> new Seen(
                                "clock",
                                "CLOCK",
                                endpoint,
                                name + " shows a wrong time",
                                says
                                        + " Set it, and give it a time server so that it stays right; if all are off alike, it is ours."));
    }

    private static String title(String name, Check told) {
        if (told == Check.ANSWERS) return name + " did not answer";
        return told.failsWhenOff() ? name + " did not find its partner" : name + " fails a check";
    }

    private static String detail(CheckResult told, int failed) {
        if (told.check() == Check.ANSWERS)
            return "It is off, cut off, or at another address; this look cannot tell which. "
                    + "Where it is switched off at night, check it by day.";
        String what = "“" + told.check().title() + "”: " + told.seen() + " ";
        if (told.check().failsWhenOff()) return what + "The partner may be switched off: check it when that is on.";
        return what + told.remedy() + (failed == 1 ? "" : " " + (failed - 1) + " more of its checks failed.");
    }
}
