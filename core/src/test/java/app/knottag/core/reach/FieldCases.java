package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.NetworkState.Layout;
import app.knottag.core.reach.NetworkState.Traits;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Cases of the field, written by hand from practice before the search was run on them: field-cases.txt. */
final class FieldCases {

    /** One case; {@code truth} is empty when the book does not know the cause. */
    record Case(int line, String group, Set<Fault> truth, NetworkState scene, List<Made> made, String story) {

        Diagnosis.Verdict verdict() {
            return Diagnosis.of(scene, FaultBook.shipped(), made);
        }

        /** Whether the truth stands first, with what cannot be told from it; when the book does not know it, that says so. */
        boolean right() {
            return right(verdict());
        }

        private boolean right(Diagnosis.Verdict v) {
            var first = v.suspects().get(0);
            if (truth.isEmpty()) return v.noneOfThese() > 0.4 || v.noneOfThese() > first.probability();
            return v.suspects().stream()
                    .filter(s -> s.group() == first.group())
                    .anyMatch(s -> Set.copyOf(s.faults()).equals(truth));
        }

        boolean foundWrongly() {
            var v = verdict();
            return v.found() && !right(v);
        }

        @Override
        public String toString() {
            return "line " + line + " (" + group + "), " + story;
        }
    }

    /** What each group is to reach. */
    static final Map<String, String> WANTED =
            Map.of("single", "98 %", "field", "98 %", "misread", "", "double", "85 %", "outside", "80 %");

    /** What each group is. */
    static final Map<String, String> SAID = Map.of(
            "single", "one cause, with what a good technician looks at",
            "field", "one cause, with what happened to be looked at",
            "misread", "one cause, and one look that was wrong",
            "double", "two causes, both of them in the first group",
            "outside", "a cause that is not in the book: none of these first, or over 0.4");

    private FieldCases() {}

    static List<Case> all() {
        var macros = new HashMap<String, String>();
        var cases = new ArrayList<Case>();
        int number = 0;
        for (var line : text().split("\n")) {
            number++;
            if (line.isBlank() || line.startsWith("#")) continue;
            if (line.startsWith("@")) {
                var parts = line.split("=", 2);
                macros.put(parts[0].strip(), parts[1].strip());
                continue;
            }
            var parts = line.split("\\|");
            cases.add(new Case(
                    number,
                    parts[0].strip(),
                    truth(parts[1].strip()),
                    scene(parts[2].strip()),
                    made(parts[3], macros),
                    parts[4].strip()));
        }
        return cases;
    }

    private static Set<Fault> truth(String text) {
        var truth = new HashSet<Fault>();
        if (!text.equals("-")) for (var one : text.split("\\+")) truth.add(Fault.valueOf(one));
        return truth;
    }

    private static NetworkState scene(String traits) {
        var usual = Layout.USUAL;
        var joined = traits.contains("w") ? Joined.WIRELESS : traits.contains("k") ? Joined.CABLE : Joined.UNKNOWN;
        var partner = traits.contains("f") ? "10.44.16.210" : "10.44.16.34";
        var here = traits.contains("o") ? "10.44.17.9" : traits.contains("f") ? "10.44.16.55" : "10.44.16.250";
        return NetworkState.intended(
                new Traits(
                        traits.contains("r"), traits.contains("p"), traits.contains("s"), traits.contains("c"), joined),
                new Layout(
                        usual.prefix(),
                        usual.gateway(),
                        usual.endpoint(),
                        usual.pools(),
                        Optional.of(Ipv4Address.parse(partner)),
                        usual.resolver(),
                        Optional.of(Ipv4Address.parse(here)),
                        traits.contains("a")));
    }

    private static List<Made> made(String text, Map<String, String> macros) {
        var made = new ArrayList<Made>();
        for (var word : text.split(",")) {
            var seen = word.strip();
            if (seen.startsWith("@")) made.addAll(made(macros.get(seen), macros));
            else made.add(one(seen));
        }
        return made;
    }

    private static Made one(String seen) {
        var parts = seen.replace("~", "").split("=");
        var question = Question.valueOf(parts[0]);
        var outcome = outcome(parts[1]);
        return seen.endsWith("~") ? new Made(question, outcome, Evidence.SPOKEN) : new Made(question, outcome);
    }

    /** Cases are written down in small letters. */
    static Outcome outcome(String word) {
        return Outcome.valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_'));
    }

    private static String text() {
        try (var in = FieldCases.class.getResourceAsStream("/reach/field-cases.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Share of the cases of these groups that end as they should. */
    static double right(List<Case> cases, String... groups) {
        var some = cases.stream()
                .filter(c -> Arrays.asList(groups).contains(c.group()))
                .toList();
        long right = some.stream().filter(Case::right).count();
        return (double) right / some.size();
    }
}
