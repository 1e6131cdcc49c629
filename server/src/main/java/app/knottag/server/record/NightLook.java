package app.knottag.server.record;

import app.knottag.core.watch.Seen;
import java.util.List;
import java.util.OptionalInt;

/** A feature that looks at something every night. Those that others rest on come first, by {@code @Order}. */
public interface NightLook {

    /** By this name stands what was seen at night, where the name of a person would stand. */
    String BY = "Knot Tag at night";

    /**
     * One look.
     *
     * @param key the same from night to night
     * @param what what is looked at, in a few words
     * @param questions about how many questions go out on the network
     * @param onSite whether it says nothing when this machine does not reach the site at all
     * @param look asks; runs outside any transaction
     */
    record Errand(String key, String what, int questions, boolean onSite, Look look) {}

    /** How a look is made: gently at night, or as fast as it goes while somebody waits for it. */
    interface Look {
        Told make(boolean gently);
    }

    /**
     * What came of a look.
     *
     * @param seen all that is not as it should be
     * @param whyNot why nobody can say; empty when it was looked at
     * @param answered how many answered, for a look that shows whether the site is reached
     */
    record Told(List<Seen> seen, String whyNot, OptionalInt answered) {

        public static Told saw(List<Seen> seen) {
            return new Told(List.copyOf(seen), "", OptionalInt.empty());
        }

        public static Told not(String why) {
            return new Told(List.of(), why, OptionalInt.empty());
        }

        public static Told heard(int answered, String whyNot) {
            return new Told(List.of(), whyNot, OptionalInt.of(answered));
        }
    }

    /** Returns what there is to look at; nothing is asked yet. */
    List<Errand> errands(long siteId);

    /** Says what somebody can do so that more is looked at; empty when there is nothing. */
    default List<String> hints(long siteId) {
        return List.of();
    }
}
