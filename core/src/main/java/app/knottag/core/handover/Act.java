package app.knottag.core.handover;

import app.knottag.core.handover.Readiness.LetPass;
import java.util.Optional;

/**
 * One thing to be done before an endpoint can be handed over.
 *
 * @param key names the thing itself, so that what is let pass is just that and nothing that comes later
 * @param title what is to be done, the same words for all endpoints where one act does for all
 * @param detail what is so with this one
 * @param passed what a lead said of it, when it may stay as it is
 */
public record Act(What what, String key, String title, String detail, Optional<LetPass> passed) {

    /** Kinds of acts, in the order in which they are best done; each is settled at one place. */
    public enum What {
        ADDRESS,
        REGISTER,
        SET_UP,
        PROVE,
        PROVE_AGAIN,
        OFFICE,
        OPENING,
        TAG_WRONG,
        TAG_PRINT,
        TAG_HANG;

        /** Whether a lead may let it pass: what was never set up or never proved cannot be handed over. */
        public boolean canPass() {
            return compareTo(PROVE_AGAIN) >= 0;
        }
    }
}
