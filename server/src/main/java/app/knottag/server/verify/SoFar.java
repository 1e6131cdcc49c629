package app.knottag.server.verify;

import app.knottag.core.reach.CheckResult;
import app.knottag.server.db.Claims.Claim;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Tells whoever looks on what has come in; of two runs of one endpoint at the same time the first is looked on at. */
record SoFar(Optional<Claim> claim, List<CheckResult> results) implements Consumer<CheckResult> {

    SoFar(Optional<Claim> claim) {
        this(claim, new ArrayList<>());
    }

    @Override
    public synchronized void accept(CheckResult result) {
        results.add(result);
        claim.ifPresent(c -> c.tell(results));
    }
}
