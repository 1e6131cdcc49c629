package app.knottag.server.record;

import app.knottag.core.reach.ProofBasis;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What a proof of an endpoint would belong to now. */
@Component
public class ProofBases {

    private final SiteStore siteStore;
    private final Sites sites;
    private final CheckRunStore checkRuns;

    ProofBases(SiteStore siteStore, Sites sites, CheckRunStore checkRuns) {
        this.siteStore = siteStore;
        this.sites = sites;
        this.checkRuns = checkRuns;
    }

    public ProofBasis of(EndpointStore.Row e) {
        var context = sites.context(sites.segment(e.segmentId()), e.address());
        return new ProofBasis(
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
                ProofBasis.settings(e.method(), context.segment(), context.resolvers()),
                checkRuns.changes(e.id(), CheckRunStore.Change.RESET),
                checkRuns.changes(e.id(), CheckRunStore.Change.MOVE));
    }

    private static String text(Object value) {
        return value == null ? "" : value.toString();
    }
}
