package app.knottag.core.impact;

import app.knottag.core.impact.Bond.Act;
import app.knottag.core.impact.Change.Subject;
import app.knottag.core.impact.Thing.Sort;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * What a change will touch.
 *
 * @param says how much of it, in a sentence
 * @param steps everything to be done, in an order in which nothing comes before what it waits for
 * @param unknown what no record says and may be touched as well
 * @param errands the same, gathered so that each is done by one person in one go
 */
public record Impact(String says, List<ImpactStep> steps, List<String> unknown, List<Errand> errands) {

    /**
     * One thing to be done.
     *
     * @param thing what it is done to
     * @param device number of the endpoint, or 0 when it is none
     * @param why what it comes of, or empty for the change itself
     * @param minutes usual minutes of hands, 1 or more
     * @param alone usual minutes that it then runs by itself
     * @param after numbers of the steps that come before, counted from 1
     */
    public record ImpactStep(
            Act act,
            String thing,
            long device,
            String place,
            String title,
            String why,
            int minutes,
            int alone,
            List<Integer> after) {}

    /**
     * What one person does in one go.
     *
     * @param stage those of a lower stage come before; counted from 1
     * @param title at most 120 characters
     * @param minutes usual minutes of hands, 1..240
     */
    public record Errand(String title, String place, int minutes, int stage) {

        private static final int WIDEST = 120;
        private static final String PROVE = ": prove it again";

        /** Returns the errand of proving a device again; a very long name is cut. */
        public static Errand proving(String name, String place, int minutes) {
            String shown = name.length() + PROVE.length() <= WIDEST
                    ? name
                    : name.substring(0, WIDEST - PROVE.length() - 1) + "…";
            return new Errand(shown + PROVE, place, minutes, 1);
        }
    }

    /**
     * Works out what a change will touch.
     *
     * @param subject key of one of {@link Change#subjects}
     * @throws ReadingException if there is no such thing at the site
     */
    public static Impact of(ImpactSite site, Change change, String subject) {
        var named = change.subjects(site).stream()
                .filter(s -> s.key().equals(subject))
                .findFirst()
                .orElseThrow(() ->
                        new ReadingException("Nothing of the sort is on record here. Choose again what it is about."));
        var thing = thing(named);
        var words = new ImpactWords(site, change, named, thing);
        var order =
                Comparator.comparing(Thing::sort).thenComparing(words::place).thenComparing(words::name);
        var done = Walk.from(Ties.of(site), thing, change.event(), order);
        var steps = new ArrayList<ImpactStep>();
        for (var d : done)
            steps.add(new ImpactStep(
                    d.act(),
                    words.headed(d.thing()),
                    d.thing().sort() == Sort.DEVICE ? Long.parseLong(d.thing().key()) : 0,
                    words.place(d.thing()),
                    words.title(d),
                    words.why(d),
                    words.minutes(d),
                    words.alone(d),
                    d.after().stream().map(i -> i + 1).toList()));
        return new Impact(words.says(done, steps), List.copyOf(steps), words.unknown(done), Errands.of(steps));
    }

    private static Thing thing(Subject subject) {
        var part = subject.key().split(":", 2);
        return new Thing(Sort.valueOf(part[0]), part[1]);
    }
}
