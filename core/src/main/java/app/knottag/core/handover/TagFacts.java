package app.knottag.core.handover;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What stands on the tag of an endpoint.
 *
 * @param facts by label, in the order in which they give way when there is no room: the last one first
 */
public record TagFacts(
        long endpoint, String name, String site, String code, Optional<String> address, Map<String, String> facts) {

    public static final String NAME = "Name";
    public static final String ADDRESS = "Address";
    public static final String CODE = "Tag";

    public TagFacts {
        var kept = new LinkedHashMap<String, String>();
        facts.forEach((label, value) -> {
            if (!value.isEmpty()) kept.put(label, value);
        });
        facts = Collections.unmodifiableMap(kept);
    }

    /** Everything by label, as it is kept beside a printed tag. */
    public Map<String, String> all() {
        var all = new LinkedHashMap<String, String>();
        all.put(NAME, name);
        address.ifPresent(a -> all.put(ADDRESS, a));
        all.put(CODE, code);
        all.putAll(facts);
        return all;
    }

    /** What stands on a tag on which some had no room. */
    public Map<String, String> without(List<String> left) {
        var all = all();
        left.forEach(all::remove);
        return all;
    }

    /**
     * Compares what was printed with what is.
     *
     * @return one sentence for each fact that is another now; facts that the tag never had do not count
     */
    public List<String> otherThan(Map<String, String> printed) {
        var now = all();
        var said = new ArrayList<String>();
        printed.forEach((label, was) -> {
            String is = now.getOrDefault(label, "");
            if (is.equals(was)) return;
            said.add(label + ": the tag says " + was
                    + (is.isEmpty() ? ", and there is none now." : ", it is " + is + "."));
        });
        return List.copyOf(said);
    }
}
