package app.knottag.core.practice;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.FaultBook.Lately;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.NetworkState.Layout;
import app.knottag.core.reach.NetworkState.Traits;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/**
 * Something that does not work somewhere, and somebody who calls. The place is made up; what every look shows there follows from
 * the same model of the network by which real causes are searched.
 *
 * @param id what it is called for ever, so that a case can be played again and compared
 * @param kind id of the kind of device
 * @param has what there is about it and its site
 * @param faults what is wrong: one cause or two at once
 * @param way in which of its ways the first cause shows itself, from 0
 * @param call what somebody says on the phone
 * @param told the same as looks, right or wrong
 * @param misread looks that show something else than what is there: they were misread, or the wrong thing was looked at
 * @param lately what was changed in the last days
 * @param level how hard it is, when that was worked out already
 */
public record PracticeCase(
        String id,
        String title,
        String kind,
        Set<Has> has,
        List<Fault> faults,
        int way,
        String call,
        Map<Question, Outcome> told,
        Map<Question, Outcome> misread,
        Set<Lately> lately,
        Optional<Level> level) {

    /** What there may be about a device and its site. */
    public enum Has {
        /** The site registers MACs. */
        REGISTRY,
        /** It has a partner. */
        PARTNER,
        /** Its address is handed out to it by its MAC. */
        RESERVATION
    }

    private static final Kinds KINDS = Kinds.shipped();

    public PracticeCase {
        faults = List.copyOf(faults);
        has = Optional.ofNullable(has).map(Set::copyOf).orElse(Set.of());
        told = Optional.ofNullable(told).map(Map::copyOf).orElse(Map.of());
        misread = Optional.ofNullable(misread).map(Map::copyOf).orElse(Map.of());
        lately = Optional.ofNullable(lately).map(Set::copyOf).orElse(Set.of());
        if (faults.isEmpty() || faults.size() > 2)
            throw new ReadingException(id + ": a case has one cause or two at once, not " + faults.size());
        named(id, told);
        named(id, misread);
    }

    private static void named(String id, Map<Question, Outcome> looks) {
        looks.forEach((question, outcome) -> {
            if (!question.outcomes().contains(outcome))
                throw new ReadingException(
                        id + ": " + question + " cannot show " + outcome + ", only " + question.outcomes());
        });
    }

    /** Returns the kind of device that it is about. */
    public Kind device() {
        return KINDS.find(kind).orElseThrow(() -> new ReadingException(id + ": there is no kind " + kind));
    }

    /** The device and all around it as it is meant to be. */
    public NetworkState intended() {
        var device = device();
        return NetworkState.intended(
                new Traits(
                        has.contains(Has.REGISTRY),
                        has.contains(Has.PARTNER),
                        device.service().tellsSerial(),
                        device.callsOut(),
                        device.wireless() ? Joined.WIRELESS : Joined.CABLE),
                Layout.USUAL.handedOut(has.contains(Has.RESERVATION)));
    }

    /** Returns how hard it is. */
    public Level hard() {
        return level.orElseGet(() -> Level.of(this));
    }

    /** Returns whatever could be wrong here: what would show in some look at the device. */
    public List<Fault> suspects() {
        var intended = intended();
        return List.of(Fault.values()).stream().filter(f -> f.shows(intended)).toList();
    }

    /** The same as it is. */
    NetworkState real() {
        var state = faults.get(0).ways(intended()).get(way);
        for (var more : faults.subList(1, faults.size())) state = more.apply(state);
        return state;
    }

    /** The book of causes as it is right after what was changed. */
    FaultBook book() {
        return FaultBook.shipped().after(lately);
    }

    /** What is known before anybody looks: what was said on the phone. */
    List<Made> opening() {
        var made = new ArrayList<Made>();
        for (var question : Question.values())
            if (told.containsKey(question)) made.add(new Made(question, told.get(question), Evidence.SPOKEN));
        return made;
    }

    /** Returns every look that can be made here at all. */
    public List<Question> questions() {
        var intended = intended();
        return List.of(Question.values()).stream().filter(intended::possible).toList();
    }

    /** Returns what a look shows, or empty when there is nothing that it could be looked at. */
    public Optional<Outcome> seen(Question question) {
        return Optional.ofNullable(misread.get(question)).or(() -> shows(question));
    }

    /** Returns what is really there to be seen. */
    Optional<Outcome> shows(Question question) {
        int shown = real().observe(question);
        var outcomes = question.outcomes();
        if (shown != NetworkState.ANYTHING) return Optional.of(outcomes.get(shown));
        if (question.by() == Question.By.EYES) return Optional.empty();
        // A stranger may answer anything, but the same to whoever plays it again.
        return Optional.of(outcomes.get(new Random(id.hashCode() * 31L + question.ordinal()).nextInt(outcomes.size())));
    }
}
