package app.knottag.core.watch;

import app.knottag.core.time.DateStyle;
import app.knottag.core.today.Notice;
import app.knottag.core.watch.Morning.Line;
import app.knottag.core.watch.Morning.News;
import app.knottag.core.watch.Morning.Outcome;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The report of a morning over all sites, as a mail in plain text.
 *
 * @param subject without line ends
 * @param body lines parted by line feeds
 */
public record MorningText(String subject, String body) {

    /** So many lines of one site are written out; the rest stands on its page. */
    private static final int MOST = 20;

    /**
     * One site's night.
     *
     * @param left what was not looked at, each with why
     * @param missed nights before in which nobody looked
     */
    public record Site(String name, Outcome outcome, List<Line> lines, List<Left> left, List<LocalDate> missed) {}

    /** Looks that were not made, all for one reason. */
    public record Left(String why, List<String> what) {

        /** Says which they were and why they were not made. */
        public String words() {
            boolean few = what.size() <= 3;
            String which = few ? String.join(", ", what) : what.get(0) + " and " + (what.size() - 1) + " more looks";
            return "Not looked at: " + which + ". " + why;
        }
    }

    /** Writes the report; sites at which something is new come first, in their order. */
    public static MorningText of(LocalDate morning, DateStyle style, List<Site> sites, List<Notice> due) {
        var telling = sites.stream().filter(s -> s.outcome().tells()).toList();
        var quiet = sites.stream().filter(s -> !s.outcome().tells()).toList();
        var body = new ArrayList<String>();
        for (var s : telling) {
            body.add(s.name() + ": " + s.outcome().words());
            var fresh = s.lines().stream().filter(l -> l.news() == News.NEW).toList();
            fresh.stream()
                    .limit(MOST)
                    .forEach(l -> body.add(
                            "  - " + flat(l.seen().title() + ". " + l.seen().detail())));
            if (fresh.size() > MOST) body.add("  - and " + (fresh.size() - MOST) + " more, on its page");
            s.left().forEach(l -> body.add("  - " + flat(l.words())));
            body.add("");
        }
        for (var s : sites)
            if (!s.missed().isEmpty())
                body.add(s.name() + ": nobody looked in the nights to "
                        + s.missed().stream().map(style::day).collect(Collectors.joining(", ")) + ".");
        if (!quiet.isEmpty()) {
            body.add("Nothing new at " + quiet.stream().map(Site::name).collect(Collectors.joining(", "))
                    + ", where all looks were made.");
            body.add("");
        }
        if (!due.isEmpty()) {
            body.add("Due today:");
            due.forEach(n -> body.add("  - " + flat(n.site().name() + ": " + n.title() + ". " + n.detail())));
        }
        return new MorningText(
                flat("Knot Tag, " + style.day(morning) + ": " + subject(telling, quiet)),
                String.join("\n", body).strip() + "\n");
    }

    private static String subject(List<Site> telling, List<Site> quiet) {
        int fresh = telling.stream().mapToInt(s -> s.outcome().fresh()).sum();
        int left = telling.stream().mapToInt(s -> s.outcome().left()).sum();
        String at = telling.size() == 1 ? " at " + telling.get(0).name() : " at " + telling.size() + " sites";
        if (fresh > 0) return fresh + " new" + at + (left > 0 ? ", " + left + " looks not made" : "");
        if (!telling.isEmpty()) return "nothing new, but looks were not made" + at;
        return "nothing new at " + (quiet.size() == 1 ? quiet.get(0).name() : quiet.size() + " sites");
    }

    /** What comes from a device or from another hand stays on its line. */
    private static String flat(String text) {
        return text.replaceAll("[\\p{Cntrl}\\u2028\\u2029]+", " ").strip();
    }
}
