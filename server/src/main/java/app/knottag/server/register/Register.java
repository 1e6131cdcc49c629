package app.knottag.server.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.register.RegisterFile.Problem;
import app.knottag.core.register.RegisterRow;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SegmentGuard;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Puts a site's endpoints into register rows and takes rows into a site, all or nothing. */
@Service
class Register {

    private final EndpointStore store;
    private final EndpointWork work;
    private final EndpointForm form;
    private final SiteStore siteStore;
    private final SegmentGuard guard;
    private final Sites sites;
    private final Kinds kinds;

    Register(
            EndpointStore store,
            EndpointWork work,
            EndpointForm form,
            SiteStore siteStore,
            Sites sites,
            Kinds kinds,
            SegmentGuard guard) {
        this.store = store;
        this.work = work;
        this.form = form;
        this.siteStore = siteStore;
        this.guard = guard;
        this.sites = sites;
        this.kinds = kinds;
    }

    List<String> kinds() {
        return kinds.all().stream().map(Kind::id).toList();
    }

    String code(long siteId) {
        return sites.site(siteId).code();
    }

    String name(long siteId) {
        return sites.site(siteId).name();
    }

    List<RegisterRow> rows(long siteId) {
        var segments =
                siteStore.segments(siteId).stream().collect(Collectors.toMap(SegmentRow::id, Function.identity()));
        var partners = siteStore.partners(siteId).stream()
                .collect(Collectors.toMap(SiteStore.PartnerRow::id, Function.identity()));
        return store.all(siteId).stream()
                .map(e -> row(
                        e,
                        segments.get(e.segmentId()),
                        Optional.ofNullable(e.partnerId()).map(partners::get)))
                .toList();
    }

    private static RegisterRow row(EndpointStore.Row e, SegmentRow segment, Optional<SiteStore.PartnerRow> partner) {
        return new RegisterRow(
                e.name(),
                e.kind(),
                Optional.ofNullable(e.number()),
                Optional.ofNullable(e.address()),
                segment.name(),
                segment.prefix(),
                Optional.ofNullable(segment.gateway()),
                Sites.resolvers(segment),
                Optional.ofNullable(e.mac()),
                e.serial(),
                e.model(),
                Optional.ofNullable(e.servicePort()),
                e.place(),
                e.outlet(),
                e.switchPort(),
                partner.map(SiteStore.PartnerRow::name).orElse(""),
                partner.map(SiteStore.PartnerRow::address),
                partner.map(SiteStore.PartnerRow::testPort));
    }

    /** Returns what would clash with the site as it is; line numbers assume one line a row. */
    List<Problem> problems(long siteId, List<RegisterRow> rows) {
        sites.site(siteId);
        var problems = new ArrayList<Problem>();
        var byAddress = new HashMap<Ipv4Address, String>();
        var byMac = new HashMap<Mac, String>();
        var byName = new HashMap<String, String>();
        for (var holder : store.holders(siteId)) {
            if (holder.address() != null) byAddress.put(holder.address(), holder.name());
            if (holder.mac() != null) byMac.put(holder.mac(), holder.name());
            byName.put(holder.name().toLowerCase(Locale.ROOT), holder.name());
        }
        var segments = siteStore.segments(siteId);
        var prefixes = new TreeMap<String, RegisterRow>();
        long line = 1;
        for (var row : rows) {
            line++;
            long at = line;
            clash(problems, line, "name", byName.get(row.name().toLowerCase(Locale.ROOT)));
            clash(problems, line, "address", row.address().map(byAddress::get).orElse(null));
            clash(problems, line, "mac", row.mac().map(byMac::get).orElse(null));
            var first = prefixes.putIfAbsent(row.prefix().toString(), row);
            if (first != null && !first.gateway().equals(row.gateway()))
                problems.add(new Problem(
                        line,
                        "gateway",
                        "Another line gives " + row.prefix() + " the gateway "
                                + first.gateway().map(Object::toString).orElse("none") + "."));
            row.gateway()
                    .filter(g -> !row.prefix().usable(g))
                    .ifPresent(g -> problems.add(new Problem(at, "gateway", g + " is outside " + row.prefix() + ".")));
            if (row.gateway().isPresent() && row.gateway().equals(row.address()))
                problems.add(new Problem(line, "address", "That is the gateway of the segment."));
            boolean drawn = segments.stream().anyMatch(g -> g.prefix().equals(row.prefix()));
            if (!drawn) guard.problem(row.prefix()).ifPresent(why -> problems.add(new Problem(at, "prefix", why)));
            for (var segment : segments)
                if (segment.prefix().overlaps(row.prefix()) && !segment.prefix().equals(row.prefix()))
                    problems.add(new Problem(
                            line,
                            "prefix",
                            row.prefix() + " overlaps " + segment.name() + ", " + segment.prefix() + "."));
            if (!row.partner().isEmpty() && row.partnerAddress().isEmpty())
                problems.add(new Problem(line, "partner_address", "The partner's address is missing."));
        }
        return problems;
    }

    private static void clash(List<Problem> problems, long line, String column, String holder) {
        if (holder != null) problems.add(new Problem(line, column, holder + " of this site has it already."));
    }

    List<String> newSegments(long siteId, List<RegisterRow> rows) {
        var known = siteStore.segments(siteId).stream()
                .map(s -> s.prefix().toString())
                .toList();
        return rows.stream()
                .map(r -> r.prefix().toString())
                .distinct()
                .filter(p -> !known.contains(p))
                .toList();
    }

    @Transactional
    void take(long siteId, List<RegisterRow> rows, String by) {
        Map<Ipv4Prefix, Long> segments = new HashMap<>();
        siteStore.segments(siteId).forEach(s -> segments.put(s.prefix(), s.id()));
        for (var row : rows) {
            long segmentId = segments.computeIfAbsent(
                    row.prefix(),
                    p -> sites.addSegment(
                            siteId,
                            row.segment().isEmpty() ? p.toString() : row.segment(),
                            new Segment(p, row.gateway(), List.of()),
                            row.resolvers(),
                            Optional.empty(),
                            by));
            work.add(
                    siteId,
                    form.read(
                            siteId,
                            EndpointRequest.of(
                                            segmentId,
                                            row.kind(),
                                            row.name(),
                                            row.address().orElse(null),
                                            "Taken over from a register file")
                                    .numbered(
                                            row.number().orElse(null),
                                            null,
                                            row.port().orElse(null))
                                    .labelled(row.mac().orElse(null), row.serial())
                                    .model(row.model())
                                    .wired(row.place(), row.outlet(), row.switchPort())
                                    .paired(
                                            row.partner(),
                                            row.partnerAddress().orElse(null),
                                            row.partnerTestPort().orElse(null))
                                    .done()),
                    by);
        }
    }
}
