package app.knottag.server.audit;

import app.knottag.core.audit.Finding;
import app.knottag.core.hardware.Mac;
import app.knottag.core.watch.Seen;
import app.knottag.server.record.NightLook;
import java.util.List;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** What differs from the record, by all that was seen until then. */
@Component
@Order(5)
class NightAudit implements NightLook {

    private final Audits audits;

    NightAudit(Audits audits) {
        this.audits = audits;
    }

    @Override
    public List<Errand> errands(long siteId) {
        return List.of(new Errand("audit", "What differs from the record", 0, true, gently -> look(siteId)));
    }

    private Told look(long siteId) {
        return Told.saw(audits.audit(siteId).findings().stream()
                .filter(f -> f.standing().drifted())
                .map(NightAudit::seen)
                .toList());
    }

    private static Seen seen(Finding f) {
        return new Seen(
                f.endpoint() == 0 ? f.mac().map(Mac::toString).orElse(f.name()) : "endpoint " + f.endpoint(),
                f.standing().name(),
                f.endpoint(),
                f.name() + ": " + f.standing().words(),
                f.says() + " " + f.act());
    }
}
