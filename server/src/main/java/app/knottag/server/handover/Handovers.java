package app.knottag.server.handover;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.handover.Act;
import app.knottag.core.handover.Readiness;
import app.knottag.core.handover.Readiness.Known;
import app.knottag.core.handover.Readiness.LetPass;
import app.knottag.core.handover.Readiness.SignOff;
import app.knottag.core.handover.TagFacts;
import app.knottag.core.handover.TagState;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.ProofBasis;
import app.knottag.core.time.SiteClock;
import app.knottag.server.db.Json;
import app.knottag.server.handover.HandoverStore.OfficeRow;
import app.knottag.server.handover.HandoverStore.PassRow;
import app.knottag.server.handover.HandoverStore.PrintedRow;
import app.knottag.server.handover.HandoverStore.SignedRow;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Loads what core judges of a hand-over, and keeps what a lead lets pass and what hangs. */
@Service
public class Handovers {

    private final HandoverStore store;
    private final EndpointStore endpointStore;
    private final Endpoints endpoints;
    private final Sites sites;
    private final SiteStore siteStore;
    private final Runbooks runbooks;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    Handovers(
            HandoverStore store,
            EndpointStore endpointStore,
            Endpoints endpoints,
            Sites sites,
            SiteStore siteStore,
            Runbooks runbooks,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.store = store;
        this.endpointStore = endpointStore;
        this.endpoints = endpoints;
        this.sites = sites;
        this.siteStore = siteStore;
        this.runbooks = runbooks;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** A living endpoint of a site with everything that the hand-over asks of it. */
    record Whole(EndpointStore.Row row, TagFacts facts, Known known) {}

    /** Everything of a site, in the order of the addresses, each kind of thing in one go. */
    List<Whole> site(long siteId) {
        var site = sites.site(siteId);
        var printed = byEndpoint(store.printed(siteId), PrintedRow::endpointId);
        var signed = byEndpoint(store.signedOff(siteId), SignedRow::endpointId);
        var office = byEndpoint(store.office(siteId), OfficeRow::endpointId);
        var passed = store.passed(siteId).stream()
                .collect(Collectors.groupingBy(
                        PassRow::endpointId,
                        Collectors.mapping(
                                p -> new LetPass(p.key(), p.reason(), p.by(), p.at()), Collectors.toList())));
        var partners = byEndpoint(siteStore.partners(siteId), SiteStore.PartnerRow::id);
        var openings = runbooks.openings(siteId);
        return endpointStore.all(siteId).stream()
                .map(e -> {
                    var facts = facts(
                            e, site.name(), Optional.ofNullable(e.partnerId()).map(partners::get));
                    var found = Optional.ofNullable(office.get(e.id()));
                    var signOff = Optional.ofNullable(signed.get(e.id()))
                            .map(s -> new SignOff(s.at(), s.by(), s.grade(), found.flatMap(o -> word(s, o))));
                    return new Whole(
                            e,
                            facts,
                            new Known(
                                    e.id(),
                                    e.name(),
                                    e.station(),
                                    signOff,
                                    openings.apply(e),
                                    TagState.of(
                                            facts,
                                            Optional.ofNullable(printed.get(e.id()))
                                                    .map(this::plain)),
                                    passed.getOrDefault(e.id(), List.of()),
                                    Optional.ofNullable(e.handedOverAt())));
                })
                .toList();
    }

    private static <T> Map<Long, T> byEndpoint(List<T> rows, Function<T, Long> id) {
        return rows.stream().collect(Collectors.toMap(id, Function.identity()));
    }

    /** What the office found counts as long as nothing was changed since; what was changed would have undone the sign-off. */
    private Optional<Boolean> word(SignedRow signed, OfficeRow office) {
        boolean holds = !office.at().isBefore(signed.at())
                || Optional.ofNullable(office.latest())
                        .filter(latest -> basis(office.basis())
                                .loosens(Check.OFFICE, basis(latest))
                                .isEmpty())
                        .isPresent();
        return holds ? Optional.of(office.reached()) : Optional.empty();
    }

    private ProofBasis basis(Json text) {
        return json.readValue(text.text(), ProofBasis.class);
    }

    private TagState.Printed plain(PrintedRow row) {
        return new TagState.Printed(
                json.readValue(row.facts().text(), new TypeReference<LinkedHashMap<String, String>>() {}),
                row.at(),
                Optional.ofNullable(row.hungAt()));
    }

    static TagFacts facts(EndpointStore.Row e, String site, Optional<SiteStore.PartnerRow> partner) {
        var facts = new LinkedHashMap<String, String>();
        facts.put("MAC", Objects.toString(e.mac(), ""));
        facts.put("Serial", e.serial());
        facts.put(
                "Place",
                e.place() + (e.outlet().isEmpty() ? "" : (e.place().isEmpty() ? "outlet " : ", outlet ") + e.outlet()));
        facts.put("Port", e.switchPort());
        facts.put("Host", e.hostName());
        facts.put("Listens on", Objects.toString(e.servicePort(), ""));
        facts.put(
                "Partner",
                partner.map(p -> p.name()
                                + Optional.ofNullable(e.partnerPort())
                                        .map(port -> " : " + port)
                                        .orElse(""))
                        .orElse(""));
        return new TagFacts(
                e.id(),
                e.name(),
                site,
                e.tagCode(),
                Optional.ofNullable(e.address()).map(Ipv4Address::toString),
                facts);
    }

    SiteClock clock(long siteId) {
        return sites.clock(siteId);
    }

    /** A lead lets things stay as they are, all of them or none; only what is to be done there now can be let pass. */
    @Transactional
    public void letPass(long siteId, Map<Long, Set<String>> keys, String reason, String by) {
        var clock = clock(siteId);
        var known = site(siteId).stream().collect(Collectors.toMap(w -> w.row().id(), Whole::known));
        keys.forEach((id, of) -> {
            var endpoint = Optional.ofNullable(known.get(id))
                    .orElseThrow(() -> Problem.notFound("An endpoint of these is retired, or stands at another site."));
            var acts = Readiness.of(endpoint, clock).stream().collect(Collectors.toMap(Act::key, Function.identity()));
            for (var key : of) pass(siteId, endpoint, Optional.ofNullable(acts.get(key)), reason, by);
        });
    }

    private void pass(long siteId, Known endpoint, Optional<Act> todo, String reason, String by) {
        var act = todo.orElseThrow(() ->
                Problem.field("acts", "not-open", "That is not to be done for " + endpoint.name() + " any more."));
        if (!act.what().canPass())
            throw Problem.field(
                    "acts",
                    "cannot-pass",
                    "What was never set up or proved cannot be handed over: " + act.title() + ".");
        store.letPass(new PassRow(endpoint.id(), act.key(), reason, clock.instant(), by));
        log.write(Log.entry(by, "let pass: " + act.title())
                .at(siteId, endpoint.id())
                .after(act.detail())
                .because(reason));
    }

    @Transactional
    public void takeBack(long endpointId, String key, String by) {
        var e = endpoints.get(endpointId);
        if (store.takeBack(endpointId, key) == 0)
            throw Problem.notFound("Nothing of that name was let pass, or it was taken back already.");
        log.write(
                Log.entry(by, "no longer lets pass").at(e.siteId(), endpointId).before(key));
    }

    /** Somebody says that the latest tags of these hang on them. */
    @Transactional
    public void hung(long siteId, List<Long> ids, String by) {
        var chosen =
                site(siteId).stream().filter(w -> ids.contains(w.row().id())).toList();
        var wrong = chosen.stream()
                .filter(w -> w.known().tag().state() == TagState.State.NOT_PRINTED)
                .findFirst();
        if (wrong.isPresent())
            throw Problem.field(
                    "endpointIds",
                    "not-printed",
                    wrong.get().row().name() + " has no tag that says what is so. Print it first.");
        var hang = chosen.stream()
                .filter(w -> w.known().tag().state() == TagState.State.TO_HANG)
                .map(w -> w.row().id())
                .toList();
        if (hang.isEmpty() || store.hung(siteId, hang, clock.instant(), by) == 0) return;
        for (long id : hang) log.write(Log.entry(by, "hung the tag").at(siteId, id));
    }
}
