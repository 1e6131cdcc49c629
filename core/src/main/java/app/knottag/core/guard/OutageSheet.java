package app.knottag.core.guard;

import app.knottag.core.figure.Figures;
import app.knottag.core.figure.Judgement;
import app.knottag.core.figure.Judgement.Draft;
import app.knottag.core.figure.Picture;
import app.knottag.core.figure.Picture.PictureMark;
import app.knottag.core.figure.Picture.Tone;
import app.knottag.core.figure.SheetField;
import app.knottag.core.figure.Unit;
import app.knottag.core.figure.Worksheet;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.stream.Collectors;

/** The watched outlet's times against the start of its router. */
public final class OutageSheet implements Worksheet {

    /** Spare seconds on top of a measured start: the next one may be slower. */
    private static final int SPARE = 30;

    private static final double TOO_OFTEN_BELOW = 0.01;
    private static final int DAY = 86_400;

    /** So many that fail each by itself are not all down at once. */
    private static final int ENOUGH = 3;

    /** What it looks at. */
    enum Target {
        OUTSIDE("Names or addresses outside"),
        INSIDE("Something inside, beyond the router"),
        ROUTER("The router itself");

        private final String words;

        Target(String words) {
            this.words = words;
        }
    }

    @Override
    public String key() {
        return "outage";
    }

    @Override
    public String title() {
        return "What it does when the line fails";
    }

    @Override
    public String purpose() {
        return "Follows an outage second by second with these times: when it restarts the router, whether the router gets "
                + "the time to start, and when it gives up. Every look is taken to fail while the line is down.";
    }

    @Override
    public List<SheetField> fields() {
        return List.of(
                SheetField.figure("start", "Router, from power to online", Unit.SECOND, 5, 3600)
                        .hint("Pull its power, put it back, and count until a phone is online again."),
                SheetField.figure("every", "It looks every", Unit.SECOND, 1, 3600)
                        .usual("60"),
                SheetField.count("tries", "Looks in a row that must fail", 1, 100)
                        .usual("3"),
                SheetField.figure("off", "It stays off for", Unit.SECOND, 1, 600)
                        .usual("15"),
                SheetField.figure("pause", "It waits before it looks again", Unit.SECOND, 0, 7200),
                SheetField.count("most", "Restarts until it gives up; 0: never", 0, 100)
                        .usual("3"),
                SheetField.pick("looks", "It looks at", Target.values(), t -> t.words),
                SheetField.count("targets", "How many of them, all must fail", 1, 20)
                        .usual("3"),
                SheetField.lines("names", "Their names or addresses, one a line")
                        .hint(
                                "Then they are looked through: which of them tell of the line at all, and which fail together.")
                        .optional(),
                SheetField.figure("lost", "Looks lost on a sound line, each target", Unit.PERCENT, 0, 100)
                        .usual("1"),
                SheetField.figure("own", "Looks lost on its own wireless", Unit.PERCENT, 0, 100)
                        .usual("0.1"),
                SheetField.figure("line", "Line down at the provider, to try", Unit.SECOND, 1, DAY)
                        .usual("20 min"),
                SheetField.figure(
                                "threshold", "It also restarts below this strength", Unit.DECIBEL_MILLIWATT, -100, -20)
                        .hint("Empty when it has no such option, or it is off.")
                        .optional(),
                SheetField.lines("history", "Strengths it has seen, one a line")
                        .hint("Paste them from its history.")
                        .optional());
    }

    @Override
    public Judgement judge(Figures f) {
        int most = f.count("most");
        var times = new OutletTimes(
                f.count("every"),
                f.count("tries"),
                f.count("off"),
                f.count("pause"),
                most == 0 ? OptionalInt.empty() : OptionalInt.of(most));
        int start = f.count("start");
        var draft = new Draft();
        results(draft, times, start, f);
        target(draft, f);
        if (f.pick("looks", Target.class) != Target.ROUTER && !f.words("names").isEmpty()) names(draft, f);
        loop(draft, times, start);
        chance(draft, times, f);
        strength(draft, f);
        return draft.draw(picture(times, start, f.count("line"))).done();
    }

    private static void results(Draft draft, OutletTimes times, int start, Figures f) {
        var hang = Outage.hangs(times, start);
        var line = Outage.line(times, start, f.count("line"));
        draft.result("DETECTION", "First restart after a failure", "at most " + Unit.duration(times.detection()));
        draft.result("LONGEST_START", "Longest start that is not cut short", Unit.duration(times.longestStart()));
        draft.result(
                "BACK",
                "A router that hung is online again after",
                hang.online().isPresent() ? Unit.duration(hang.online().getAsInt()) : "never");
        draft.result(
                "GIVES_UP",
                "It gives up after",
                times.givesUpAfter().isPresent()
                        ? Unit.duration(times.givesUpAfter().getAsInt())
                        : "never");
        draft.result(
                "NEEDLESS",
                "Restarts in vain while the line is down " + Unit.duration(f.count("line")),
                "at most " + line.restarts().size() + (line.gaveUp().isPresent() ? ", then it gives up" : ""));
    }

    private static void target(Draft draft, Figures f) {
        if (f.pick("looks", Target.class) == Target.ROUTER) {
            draft.stop(
                    "BLIND",
                    "looks",
                    "The router answers with its line dead: it never sees the line fail.",
                    "Let it look at several names outside, at different providers.");
            return;
        }
        if (f.count("targets") == 1)
            draft.warn(
                    "ONE_TARGET",
                    "targets",
                    f.pick("looks", Target.class) == Target.INSIDE
                            ? "It looks at one thing inside: that tests this thing, not the internet, and its standstill "
                                    + "restarts the router."
                            : "It looks at one name: when that one is down, the router is restarted for it.",
                    "Give it three names or more, at different providers.");
    }

    /** All must fail before it restarts anything: one that answers without the line hides every outage. */
    private static void names(Draft draft, Figures f) {
        TargetList list;
        try {
            list = TargetList.read(f.words("names"));
        } catch (ReadingException e) {
            draft.stop("NO_TARGET", "names", e.getMessage(), "Correct that line, or take it out.");
            return;
        }
        if (list.size() != f.count("targets"))
            draft.warn(
                    "COUNTED_OTHERWISE",
                    "targets",
                    list.size() + (list.size() == 1 ? " is" : " are") + " named, and it is said to look at "
                            + f.count("targets") + ".",
                    "Name all that it looks at, and count them.");
        var inside = list.inside();
        if (!inside.isEmpty()) {
            draft.stop(
                    "ANSWERS_INSIDE",
                    "names",
                    String.join(", ", inside) + (inside.size() == 1 ? " answers" : " answer")
                            + " from inside with the line dead, and all must fail: it never sees the line fail.",
                    "Take " + (inside.size() == 1 ? "it" : "them") + " off its list.");
            return;
        }
        draft.result("APART", "Fail each by itself", list.apart() + " of " + list.size());
        if (list.apart() >= ENOUGH) return;
        String together = list.together().stream()
                .map(t -> String.join(" and ", t) + " are most likely run by the same hands. ")
                .collect(Collectors.joining());
        int more = ENOUGH - list.apart();
        draft.warn(
                "FAIL_TOGETHER",
                "names",
                together + (list.apart() == 1 ? "One standstill elsewhere" : "Two standstills elsewhere at once")
                        + " and the router is restarted for it.",
                "Add " + (more == 1 ? "one" : "two")
                        + " of other hands: the resolver of the line's provider, a public resolver, "
                        + "or the service that the work here needs.");
    }

    private static void loop(Draft draft, OutletTimes times, int start) {
        if (start > times.longestStart()) {
            int pause = start + SPARE - (times.tries() - 1) * times.every();
            int tries = (start + SPARE - times.pause() + times.every() - 1) / times.every() + 1;
            draft.stop(
                    "LOOP",
                    "pause",
                    (times.most().isEmpty()
                                    ? "It restarts the router for ever: the router needs "
                                    : "It cuts every start of the router short until it gives up: the router needs ")
                            + Unit.duration(start) + ", and is switched off again after "
                            + Unit.duration(times.longestStart()) + ".",
                    "Set its wait to at least " + tens(pause) + " s, or the looks that must fail to " + tries + ".");
        } else if (start + SPARE > times.longestStart())
            draft.warn(
                    "TIGHT",
                    "pause",
                    "Only " + (times.longestStart() - start) + " s to spare: a start that takes a little longer, as "
                            + "after an update, is cut short.",
                    "Make its wait " + tens(SPARE - times.longestStart() + start) + " s longer.");
        if (times.most().isEmpty())
            draft.warn(
                    "NO_END",
                    "most",
                    "While the line is down for long it restarts the router again and again, "
                            + Math.max(1, DAY / times.cycle()) + " times a day.",
                    "Let it give up after 3: then it is something else, and a person should know.");
    }

    private static int tens(int seconds) {
        return (seconds + 9) / 10 * 10;
    }

    private static void chance(Draft draft, OutletTimes times, Figures f) {
        double lost = FalseRestarts.lost(f.figure("lost") / 100, f.figure("own") / 100, f.count("targets"));
        double month = FalseRestarts.aMonth(times, lost);
        draft.result(
                "FALSE", "Restarts for nothing", month < 0.01 ? "under 1 in 8 years" : Unit.plain(month) + " a month");
        if (month < 1) return;
        int tries = FalseRestarts.triesForLessThanOne(times, lost);
        boolean enough = FalseRestarts.aMonth(times.withTries(tries), lost) < 1;
        draft.warn(
                "FALSE_OFTEN",
                "tries",
                "By lost looks alone it restarts a sound line " + Unit.plain(month) + " times a month.",
                enough
                        ? "With " + tries + " looks that must fail it is less than once a month."
                        : "More looks do not help here: mend its wireless first, or give it other targets.");
    }

    private static void strength(Draft draft, Figures f) {
        if (f.find("threshold").isEmpty()) return;
        int threshold = f.count("threshold");
        if (f.words("history").isEmpty()) {
            draft.warn(
                    "NO_HISTORY",
                    "history",
                    "Whether " + threshold + " dBm is too high cannot be said without a history.",
                    "Paste a day of it, or switch this option off.");
            return;
        }
        try {
            var trigger = WirelessTrigger.of(f.words("history"), threshold);
            draft.result(
                    "BELOW",
                    "Of " + trigger.looked() + " strengths seen, below " + threshold + " dBm",
                    Unit.PERCENT.write(trigger.below() * 100));
            if (trigger.below() > TOO_OFTEN_BELOW)
                draft.stop(
                        "RADIO",
                        "threshold",
                        "The router will be restarted because the outlet hears it badly, not because the line is down.",
                        "Switch this option off, or set it to " + trigger.safe() + " dBm: the weakest seen was "
                                + trigger.weakest() + " dBm.");
        } catch (ReadingException e) {
            draft.stop("UNREADABLE", "history", e.getMessage(), "");
        }
    }

    private static Picture picture(OutletTimes times, int start, int lasts) {
        var hang = Outage.hangs(times, start);
        var line = Outage.line(times, start, lasts);
        int end = Math.max(end(hang, times, start), Math.max(end(line, times, start), lasts)) + times.every();
        var marks = new ArrayList<PictureMark>();
        times.givesUpAfter().ifPresent(s -> {
            if (s <= end) marks.add(new PictureMark(s, "gives up"));
        });
        return new Picture(
                "Two outages, from the second they begin",
                Unit.SECOND,
                end,
                List.of(
                        row("The router hangs", hang, times, start, 0, end),
                        row("The line is down " + Unit.duration(lasts), line, times, start, lasts, end)),
                marks);
    }

    private static int end(Outage outage, OutletTimes times, int start) {
        // An endless loop is drawn for five rounds.
        int shown = Math.min(outage.restarts().size(), 5);
        return Math.max(outage.online().orElse(0), times.detection() + shown * times.cycle() + (shown > 0 ? start : 0));
    }

    private static Picture.PictureRow row(
            String label, Outage outage, OutletTimes times, int start, int lineBack, int end) {
        var row = new Picture.Row(label);
        for (int i = 0; i < outage.restarts().size() && row.end() < end; i++) {
            int at = outage.restarts().get(i);
            int next = i + 1 < outage.restarts().size() ? outage.restarts().get(i + 1) : end;
            row.add(Math.min(at, end) - row.end(), i == 0 ? "no answer" : "", i == 0 ? Tone.BAD : Tone.WAITS);
            row.add(Math.min(times.off(), end - row.end()), "off", Tone.SPARE);
            row.add(Math.min(Math.min(start, next - at - times.off()), end - row.end()), "starts", Tone.RUNS);
        }
        int online = outage.online().orElse(end);
        row.add(
                Math.min(online, end) - row.end(),
                outage.restarts().isEmpty() ? "no answer" : "line still down",
                Tone.BAD);
        row.add(end - row.end(), "online", Tone.GOOD);
        return row.row();
    }
}
