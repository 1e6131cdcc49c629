package app.knottag.core.visit;

import java.util.Map;

/**
 * What is there for all, in small numbers.
 *
 * @param bench devices that the bench takes at once: the fewer of its free outlets and switch ports
 * @param megabits speed of the line for downloads in Mbit/s, 0 when nothing needs to be reckoned
 * @param walk minutes to walk from one place to another
 * @param areas which area a place lies in, such as another site on the way; the others lie in one together
 * @param travel minutes from one area to another
 * @param tools how many there are of each tool that is short
 */
public record Means(
        int bench, double megabits, int walk, Map<String, Integer> tools, Map<String, String> areas, int travel) {

    /** More than anybody sets up at once. */
    public static final int PLENTY = 1_000;

    /** Nothing is short, and everything is at hand. */
    public static final Means ENOUGH = new Means(PLENTY, 0, 0, Map.of());

    public Means {
        tools = Map.copyOf(tools);
        areas = Map.copyOf(areas);
    }

    /** All at one site. */
    public Means(int bench, double megabits, int walk, Map<String, Integer> tools) {
        this(bench, megabits, walk, tools, Map.of(), 0);
    }

    /** Minutes from a place to another; one that nobody named is a place like others. */
    public int walk(String from, String to) {
        if (from.equals(to)) return 0;
        return area(from).equals(area(to)) ? walk : travel;
    }

    String area(String place) {
        return areas.getOrDefault(place, "");
    }

    int of(String tool) {
        return tools.getOrDefault(tool, PLENTY);
    }

    /** Returns the same with one more device on the bench. */
    Means widerBench() {
        return new Means(bench + 1, megabits, walk, tools, areas, travel);
    }

    /** Returns the same where whatever is fetched comes on a stick. */
    Means withStick() {
        return new Means(bench, 0, walk, tools, areas, travel);
    }
}
