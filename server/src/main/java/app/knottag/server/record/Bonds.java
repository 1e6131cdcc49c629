package app.knottag.server.record;

import app.knottag.core.reach.Bond;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a proof of an endpoint would belong to now. */
@Component
public class Bonds {

    private final SiteStore siteStore;
    private final Sites sites;
    private final RoundStore rounds;

    Bonds(SiteStore siteStore, Sites sites, RoundStore rounds) {
        this.siteStore = siteStore;
        this.sites = sites;
        this.rounds = rounds;
    }

    public Bond of(EndpointStore.Row e) {
        var ground = sites.ground(sites.segment(e.segmentId()), e.address());
        return new Bond(
                e.place(),
                e.outlet(),
                e.switchPort(),
                text(e.mac()),
                e.serial(),
                text(e.address()),
                e.servicePort() == null ? 0 : e.servicePort(),
                Optional.ofNullable(e.partnerId())
                        .map(siteStore::partner)
                        .map(p -> p.name() + " at " + p.address() + ":" + e.partnerPort())
                        .orElse(""),
                Bond.settings(e.method(), ground.segment(), ground.resolvers()),
                rounds.changes(e.id(), RoundStore.Change.RESET),
                rounds.changes(e.id(), RoundStore.Change.MOVE));
    }

    private static String text(Object value) {
        return value == null ? "" : value.toString();
    }
}
