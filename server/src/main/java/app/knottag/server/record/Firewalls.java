package app.knottag.server.record;

import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.FirewallRules;
import app.knottag.core.plan.FirewallRules.Rule;
import app.knottag.core.plan.FirewallRules.Talker;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Loads who talks with whom at a site, for the rules of its firewall. */
@Service
public class Firewalls {

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Kinds kinds;

    Firewalls(EndpointStore store, SiteStore siteStore, Kinds kinds) {
        this.store = store;
        this.siteStore = siteStore;
        this.kinds = kinds;
    }

    public List<Rule> rules(long siteId) {
        var partners = siteStore.partners(siteId).stream().collect(Collectors.toMap(SiteStore.PartnerRow::id, p -> p));
        var resolvers = siteStore.segments(siteId).stream()
                .collect(Collectors.toMap(SiteStore.SegmentRow::id, Sites::resolvers));
        var talkers = store.all(siteId).stream()
                .filter(e -> Objects.nonNull(e.address()))
                .map(e -> {
                    var partner = Optional.ofNullable(e.partnerId()).map(partners::get);
                    return new Talker(
                            e.name(),
                            e.address(),
                            Optional.ofNullable(e.servicePort()),
                            partner.map(SiteStore.PartnerRow::name),
                            partner.map(SiteStore.PartnerRow::address),
                            Optional.ofNullable(e.partnerPort()),
                            kinds.get(e.kind()).talks(),
                            resolvers.getOrDefault(e.segmentId(), List.of()));
                })
                .toList();
        var services = siteStore.services(siteId).stream()
                .map(s -> new FirewallRules.Listed(s.name(), s.protocol(), s.host(), s.port()))
                .toList();
        return FirewallRules.of(talkers, services);
    }
}
