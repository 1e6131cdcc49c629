package app.knottag.core.kind;

import java.util.List;

/**
 * What a reset does to a device.
 *
 * @param how how it is done
 * @param seconds shortest and longest seconds that the button is held, or empty when there is no button
 * @param beeps beeps that say it was taken
 * @param longer what holding it longer does, or empty
 * @param keeps what stays as it is
 * @param loses what is gone
 * @param data whether data of the client go with it, so that a backup must be named first
 * @param redo keys of the steps to do again
 */
public record ResetRule(
        String how,
        List<Integer> seconds,
        int beeps,
        String longer,
        List<String> keeps,
        List<String> loses,
        boolean data,
        List<String> redo) {

    public ResetRule {
        seconds = KindCheck.orEmpty(seconds);
        keeps = KindCheck.orEmpty(keeps);
        loses = KindCheck.orEmpty(loses);
        redo = KindCheck.orEmpty(redo);
        longer = KindCheck.orEmpty(longer);
        if (!seconds.isEmpty() && (seconds.size() != 2 || seconds.get(0) < 1 || seconds.get(0) > seconds.get(1)))
            throw new IllegalArgumentException("seconds must be [shortest, longest], was " + seconds);
    }

    ResetRule only(List<Kind.Step> steps) {
        var keys = steps.stream().map(Kind.Step::key).toList();
        return new ResetRule(
                how,
                seconds,
                beeps,
                longer,
                keeps,
                loses,
                data,
                redo.stream().filter(keys::contains).toList());
    }
}
