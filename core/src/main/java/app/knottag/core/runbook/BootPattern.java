package app.knottag.core.runbook;

import app.knottag.core.kind.Kind.Wait;
import app.knottag.core.runbook.Runbook.Pace;

/** What the restarts of a wait tell: fewer than usual and already welcome, or far more than it ever makes. */
public record BootPattern(Verdict verdict, String words) {

    /** What to do. */
    public enum Verdict {
        WAIT,
        GO_ON,
        LOOK,
        CALL
    }

    /** Judges by the restarts counted and how long it has run. */
    public static BootPattern of(Wait wait, int restarts, Pace pace) {
        if (wait.restarts().isEmpty())
            return pace == Pace.TOO_LONG
                    ? new BootPattern(Verdict.LOOK, "Longer than it ever takes. Look at it now.")
                    : new BootPattern(pace == Pace.TOO_EARLY ? Verdict.WAIT : Verdict.GO_ON, "");
        int fewest = wait.restarts().get(0), most = wait.restarts().get(1);
        if (restarts > most * 2)
            return new BootPattern(
                    Verdict.CALL,
                    restarts + " restarts, and it makes " + most + " at most: it goes round in a circle. Power off for"
                            + " ten seconds, once; the same again, call.");
        if (restarts > most)
            return new BootPattern(
                    Verdict.LOOK, restarts + " restarts, more than its usual " + fewest + " to " + most + ".");
        if (pace == Pace.TOO_LONG)
            return new BootPattern(
                    Verdict.LOOK,
                    restarts < fewest
                            ? "Only " + restarts + " of " + fewest + " restarts in that time: it is stuck. Look at it."
                            : "Longer than it ever takes. Look at it now.");
        if (restarts < fewest)
            return new BootPattern(
                    Verdict.WAIT,
                    restarts + " of at least " + fewest
                            + " restarts: a welcome screen now does not mean that the updates are done.");
        return new BootPattern(Verdict.GO_ON, restarts + " restarts, as usual.");
    }
}
