package app.knottag.core.reach;

import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.FaultBook.Shared;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * Several devices that fail at the same time, as one case: either each has a fault of its own, or one thing on which some of
 * them hang has one. By Bayes' rule over no or one shared fault and any number of own ones; how often a device is met with a
 * shared cause is how often the thing has it, so the priors are those of the {@link FaultBook}.
 */
public final class CommonCause {

    /** Share of devices that have a fault of their own when nobody has looked. */
    private static final double OWN = 0.02;

    /** Share of devices that do not hang on what the record says, or have a fault of their own besides. */
    private static final double APART = 0.02;

    /** Looks at something that they share; however many devices they are noted at, they count once. */
    private static final Set<Question> OF_ALL = EnumSet.of(
            Question.VANTAGE,
            Question.GATEWAY,
            Question.RESOLVER,
            Question.OTHERS_HERE,
            Question.OTHERS_OUTSIDE,
            Question.ROUTER,
            Question.POOL,
            Question.RULES,
            Question.BROWSE,
            Question.LARGE,
            Question.NAME_GIVES,
            Question.SERVICE_WORD,
            Question.PARTNER_FIELDS);

    private CommonCause() {}

    /** One thing on which devices hang together, by its name at the site. */
    public record Common(Shared what, String name) {}

    /**
     * One device.
     *
     * @param made what was seen of it, all well when nothing is wrong with it
     * @param hangsOn what it has in common with others
     */
    public record Member(String name, NetworkState intended, List<Made> made, Set<Common> hangsOn) {
        public Member {
            made = List.copyOf(made);
            hangsOn = Set.copyOf(hangsOn);
        }

        /** Whether anything odd was seen of it. */
        public boolean odd() {
            return made.stream().anyMatch(m -> m.index() > 0);
        }
    }

    /**
     * One shared fault.
     *
     * @param probability 0..1; all of them and {@link Verdict#apart} sum to 1
     * @param members who hangs on it, as indices
     * @param hit those of them that it explains, as indices
     */
    public record Suspect(Fault fault, Common at, double probability, List<Integer> members, List<Integer> hit) {}

    /**
     * The look to make next.
     *
     * @param members for whom it counts: the first of them is where it is made
     */
    public record NextQuestion(Question question, List<Integer> members) {}

    /**
     * Where the case stands.
     *
     * @param suspects likeliest first
     * @param apart probability that each has a fault of its own
     * @param found whether the first is certain, and proved by its own look
     */
    public record Verdict(List<Suspect> suspects, double apart, Optional<NextQuestion> next, boolean found) {

        /** Whether they are likelier one case than several. */
        public boolean oneCase() {
            return !suspects.isEmpty() && apart < 0.5;
        }
    }

    /** Works out whether several devices have one fault, and which. */
    public static Verdict of(List<Member> members, FaultBook book) {
        return new Case(counted(members), book).verdict();
    }

    /** What was seen of something shared is left with the first who has it. */
    private static List<Member> counted(List<Member> members) {
        var seen = new HashSet<Answer>();
        return members.stream()
                .map(m -> new Member(
                        m.name(),
                        m.intended(),
                        m.made().stream()
                                .filter(o -> !OF_ALL.contains(o.question()) || seen.add(o.answer()))
                                .toList(),
                        m.hangsOn()))
                .toList();
    }

    private static final class Case {
        private final List<Member> members;
        private final FaultBook book;
        private final List<Search> searches;
        private final double[] own;
        private final List<Suspect> suspects = new ArrayList<>();
        private double apart;

        Case(List<Member> members, FaultBook book) {
            this.members = members;
            this.book = book;
            searches = members.stream()
                    .map(m -> Search.ofSingles(m.intended(), book, m.made()))
                    .toList();
            own = new double[members.size()];
            for (int i = 0; i < own.length; i++) own[i] = alone(searches.get(i));
            weigh();
        }

        private double alone(Search s) {
            return Math.log((1 - OWN) * s.likelihood(Fault.NOTHING) + OWN * s.evidence);
        }

        private void weigh() {
            double priors = book.faults().values().stream().collect(Collectors.summingDouble(FaultBook.Entry::prior));
            var weights = new LinkedHashMap<Suspect, Double>();
            hangers().forEach((common, on) -> {
                for (var fault : book.shared().get(common.what())) {
                    double log = Math.log(OWN * book.of(fault).prior() / priors);
                    double beside = beside(fault, common);
                    for (int i : on)
                        log += Math.log((1 - beside) * shared(i, fault) + beside * Math.exp(own[i])) - own[i];
                    weights.put(new Suspect(fault, common, 0, on, hit(on, fault)), log);
                    ;
                }
            });
            double most = weights.values().stream().reduce(0.0, Math::max);
            double sum = Math.exp(-most);
            for (double log : weights.values()) sum += Math.exp(log - most);
            apart = Math.exp(-most) / sum;
            for (var w : weights.entrySet()) {
                var s = w.getKey();
                suspects.add(new Suspect(s.fault(), s.at(), Math.exp(w.getValue() - most) / sum, s.members(), s.hit()));
            }
            suspects.sort(Comparator.comparingDouble(Suspect::probability).reversed());
        }

        /** Nobody escapes the machine that looks, nor a place without power. */
        private static double beside(Fault fault, Common common) {
            boolean all = common.what() == Shared.MACHINE || common.what() == Shared.SITE && fault == Fault.POWER_CUT;
            return all ? 0 : APART;
        }

        /** What at least two odd ones hang on, and all who do. */
        private Map<Common, List<Integer>> hangers() {
            var on = new LinkedHashMap<Common, List<Integer>>();
            for (int i = 0; i < members.size(); i++)
                for (var common : members.get(i).hangsOn())
                    on.computeIfAbsent(common, c -> new ArrayList<>()).add(i);
            on.values()
                    .removeIf(who ->
                            who.stream().filter(i -> members.get(i).odd()).count() < 2);
            return on;
        }

        /** Those odd ones that it explains without a misreading; when they are fewer than two, all odd ones. */
        private List<Integer> hit(List<Integer> on, Fault fault) {
            var odd = on.stream().filter(i -> members.get(i).odd()).toList();
            var explained =
                    odd.stream().filter(i -> searches.get(i).explains(fault)).toList();
            return explained.size() > 1 ? explained : odd;
        }

        /** How likely what was seen of one is under a shared cause; one that it does not touch is well. */
        private double shared(int i, Fault fault) {
            var s = searches.get(i);
            return s.has(fault) ? s.likelihood(fault) : s.likelihood(Fault.NOTHING);
        }

        Verdict verdict() {
            if (suspects.isEmpty()) return new Verdict(List.of(), 1, Optional.empty(), false);
            var first = suspects.get(0);
            boolean certain = first.probability() >= Diagnosis.CERTAIN;
            var direct = book.of(first.fault()).direct();
            boolean proved = direct.isEmpty()
                    || first.members().stream()
                            .flatMap(i -> members.get(i).made().stream())
                            .anyMatch(m -> direct.contains(m.answer()));
            var next = certain && proved ? Optional.<NextQuestion>empty() : next(first, certain ? direct : List.of());
            return new Verdict(List.copyOf(suspects), apart, next, certain && proved);
        }

        private Optional<NextQuestion> next(Suspect first, List<Answer> direct) {
            int at = first.hit().get(0);
            var left = EnumSet.allOf(Question.class).stream()
                    .filter(l -> l.by() == Question.By.EYES
                            && members.get(at).intended().possible(l))
                    .filter(l ->
                            members.stream().flatMap(m -> m.made().stream()).noneMatch(m -> m.question() == l))
                    .toList();
            return direct.stream()
                    .map(Answer::question)
                    .filter(left::contains)
                    .findFirst()
                    .or(() -> gainful(at, left))
                    .map(l -> new NextQuestion(l, OF_ALL.contains(l) ? first(at, first.hit()) : List.of(at)));
        }

        private static List<Integer> first(int at, List<Integer> all) {
            var order = new ArrayList<>(all);
            order.remove(Integer.valueOf(at));
            order.add(0, at);
            return List.copyOf(order);
        }

        private Optional<Question> gainful(int at, List<Question> left) {
            var gains = new EnumMap<Question, Double>(Question.class);
            for (var question : left) {
                double gain = gain(at, question);
                if (gain >= Diagnosis.WORTHWHILE) gains.put(question, Diagnosis.worth(gain, question.minutes()));
            }
            return gains.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
        }

        /** Mutual information of what one device shows and which fault it is, in bits. */
        private double gain(int at, Question question) {
            var s = searches.get(at);
            var shown = new HashMap<Fault, double[]>();
            double[] alone = s.shown(question, Optional.empty());
            double[] all = new double[alone.length];
            double within = add(all, alone, apart);
            for (var suspect : suspects) {
                double[] one = suspect.members().contains(at)
                        ? shown.computeIfAbsent(suspect.fault(), c -> s.shown(question, Optional.of(c)))
                        : alone;
                within += add(all, one, suspect.probability());
            }
            return Diagnosis.entropy(all) - within;
        }

        private static double add(double[] all, double[] one, double weight) {
            for (int o = 0; o < all.length; o++) all[o] += weight * one[o];
            return weight * Diagnosis.entropy(one);
        }
    }

    /** Says who fails with whom, and on what they hang, in one sentence. */
    public static String says(List<Member> members, Suspect suspect) {
        var names = suspect.hit().stream().map(i -> members.get(i).name()).toList();
        int last = names.size() - 1;
        var who = last > 5
                ? names.size() + " devices"
                : IntStream.range(0, names.size())
                        .mapToObj(i -> (i == 0 ? "" : i == last ? " and " : ", ") + names.get(i))
                        .collect(Collectors.joining());
        return who + " fail together: "
                + switch (suspect.at().what()) {
                    case STRIP -> "all stand at " + suspect.at().name();
                    case SWITCH -> "all hang on " + suspect.at().name();
                    case SEGMENT -> "all are in " + suspect.at().name();
                    case SITE -> "all are at this site";
                    case PARTNER -> "all have " + suspect.at().name() + " for a partner";
                    case SERVICE -> "all call " + suspect.at().name();
                    case MACHINE -> "all were looked at from this machine";
                    case CHANGE -> "all were renumbered with " + suspect.at().name();
                }
                + ".";
    }
}
