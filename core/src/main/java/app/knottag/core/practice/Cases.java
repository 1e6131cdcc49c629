package app.knottag.core.practice;

import app.knottag.core.kind.Kinds;
import app.knottag.core.practice.PracticeCase.Has;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.regex.Pattern;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.dataformat.yaml.YAMLMapper;

/** The cases that come with Knot Tag, and any number of others that are drawn from the same model. */
public final class Cases {

    private static final Pattern DRAWN = Pattern.compile("drawn-([0-9]{1,9})");
    private static final double SOMETHING_SAID = 0.7;
    private static final double WRONG_WORD = 0.15;
    private static final double TWO_AT_ONCE = 0.12;
    private static final List<Question> SAID =
            List.of(Question.POWER, Question.SCREEN, Question.OTHERS_HERE, Question.LINK, Question.CLOCK);

    private static final List<PracticeCase> SHIPPED = read();

    private Cases() {}

    /** Returns the cases that were made with care, the easy ones first. */
    public static List<PracticeCase> shipped() {
        return SHIPPED;
    }

    private static List<PracticeCase> read() {
        var yaml = YAMLMapper.builder()
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .build();
        try (var in = Cases.class.getResourceAsStream("/practice/cases.yaml")) {
            return List.copyOf(yaml.readValue(in, new TypeReference<List<PracticeCase>>() {}));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Returns the case of that name: one of those that come along, or a drawn one such as {@code drawn-4711}. */
    public static Optional<PracticeCase> find(String id) {
        var number = DRAWN.matcher(id);
        if (number.matches()) return Optional.of(drawn(Integer.parseInt(number.group(1))));
        return SHIPPED.stream().filter(c -> c.id().equals(id)).findFirst();
    }

    /**
     * Returns a case that is drawn from the model, always the same for the same number: a device, what is wrong by how often it is
     * met, and what the caller says of it. One in which the best search would name something else is drawn once more.
     */
    public static PracticeCase drawn(int number) {
        if (number < 0) throw new ReadingException("Drawn cases are counted from 0, was " + number);
        return KEPT.computeIfAbsent(number, n -> {
            var random = new Random(n * 7_919L + 17);
            while (true) {
                var one = draw("drawn-" + n, random);
                if (one.isPresent()
                        && Search.ends(one.get(), Search.best(one.get()).end())) return one.get();
            }
        });
    }

    private static final int KEPT_MOST = 256;

    /** The cases that were drawn last: somebody is at them, and asks again and again. */
    private static final Map<Integer, PracticeCase> KEPT =
            Collections.synchronizedMap(new LinkedHashMap<>(KEPT_MOST, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<Integer, PracticeCase> eldest) {
                    return size() > KEPT_MOST;
                }
            });

    private static Optional<PracticeCase> draw(String id, Random random) {
        var kind = Kinds.SHIPPED.get(random.nextInt(Kinds.SHIPPED.size()));
        var has = EnumSet.noneOf(Has.class);
        if (random.nextBoolean()) has.add(Has.REGISTRY);
        if (random.nextBoolean()) has.add(Has.PARTNER);
        if (random.nextInt(4) == 0) has.add(Has.RESERVATION);
        var fault = fault(random);
        var alone = new PracticeCase(
                id, "", kind, has, List.of(fault), 0, "", Map.of(), Map.of(), Set.of(), Optional.empty());
        var intended = alone.intended();
        if (!fault.shows(intended)) return Optional.empty();
        int way = random.nextInt(fault.ways(intended).size());
        var second = fault(random);
        boolean two = fault != Fault.NOTHING
                && second != Fault.NOTHING
                && second != fault
                && random.nextDouble() < TWO_AT_ONCE
                && second.shows(intended);
        var faults = two ? List.of(fault, second) : List.of(fault);
        var c = new PracticeCase(id, "", kind, has, faults, way, "", Map.of(), Map.of(), Set.of(), Optional.empty());
        var told = told(c, random);
        var device = c.device();
        return Optional.of(new PracticeCase(
                id,
                "Somebody’s " + device.noun(),
                kind,
                has,
                faults,
                way,
                call(device.noun(), told),
                told,
                Map.of(),
                Set.of(),
                Optional.empty()));
    }

    private static Fault fault(Random random) {
        var book = FaultBook.shipped();
        double sum = Arrays.stream(Fault.values())
                .mapToDouble(f -> book.of(f).prior())
                .sum();
        double at = random.nextDouble() * sum;
        for (var fault : Fault.values()) if ((at -= book.of(fault).prior()) <= 0) return fault;
        return Fault.NO_POWER;
    }

    /** What the caller says of it, now and then wrongly. */
    private static Map<Question, Outcome> told(PracticeCase c, Random random) {
        var told = new EnumMap<Question, Outcome>(Question.class);
        if (random.nextDouble() > SOMETHING_SAID) return told;
        var question = SAID.get(random.nextInt(SAID.size()));
        if (!c.questions().contains(question)) return told;
        var outcomes = question.outcomes();
        c.shows(question)
                .ifPresent(seen -> told.put(
                        question,
                        random.nextDouble() < WRONG_WORD ? outcomes.get(random.nextInt(outcomes.size())) : seen));
        return told;
    }

    private static String call(String noun, Map<Question, Outcome> told) {
        var book = FaultBook.shipped();
        var said = new StringBuilder("“The " + noun + " does not do its job.");
        told.forEach((question, outcome) ->
                said.append(' ').append(book.said(question, outcome)).append('.'));
        return said + " Can you come?”";
    }
}
