package app.knottag.server.reach;

import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.knot.Knot;
import app.knottag.core.log.Words;
import app.knottag.core.reach.Check;
import app.knottag.core.reach.CheckResult;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Ladder;
import app.knottag.core.reach.MachineLooks;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Target;
import app.knottag.server.db.Json;
import app.knottag.server.log.Log;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.plan.Endpoints;
import app.knottag.server.runbook.Runbooks;
import app.knottag.server.runbook.StepWork;
import app.knottag.server.site.SiteStore;
import app.knottag.server.site.Sites;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Makes rounds of checks on the network, keeps what came out, and takes the sign-off when all of it holds. */
@Service
public class Confirm {

    private static final Duration FRESH = Duration.ofMinutes(15);
    private static final int ROUNDS_AT_ONCE = 4;
    private static final int LOOKS_AT_ONCE = 16;

    /** A round as it is shown. */
    public record Round(
            long id,
            Instant at,
            String by,
            boolean failed,
            boolean holds,
            boolean askAtPartner,
            List<CheckResult> results) {}

    private final Endpoints endpoints;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final RoundStore rounds;
    private final Runbooks runbooks;
    private final StepWork steps;
    private final Probes probes;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;
    private final ExecutorService lookers = Executors.newFixedThreadPool(LOOKS_AT_ONCE, r -> {
        var thread = new Thread(r, "looks");
        thread.setDaemon(true);
        return thread;
    });
    private final Semaphore atOnce = new Semaphore(ROUNDS_AT_ONCE, true);

    Confirm(
            Endpoints endpoints,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            RoundStore rounds,
            Runbooks runbooks,
            StepWork steps,
            Probes probes,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.endpoints = endpoints;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.rounds = rounds;
        this.runbooks = runbooks;
        this.steps = steps;
        this.probes = probes;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    /** Makes every check once. At most four rounds run at the same time; others wait their turn. */
    @Transactional
    public long round(long endpointId, String by) {
        var endpoint = endpoints.get(endpointId);
        var target = target(endpoint);
        var at = clock.instant();
        atOnce.acquireUninterruptibly();
        List<CheckResult> results;
        List<Diagnosis.Made> looks = List.of();
        boolean failed;
        try {
            results = new Ladder(target, probes, clock).climb();
            failed = results.stream().anyMatch(CheckResult::failed);
            if (failed) looks = new MachineLooks(target, probes, lookers).make();
        } finally {
            atOnce.release();
        }
        long id = rounds.add(endpointId, at, by, failed, new Json(json.writeValueAsString(results)));
        for (var m : looks) rounds.keepLook(endpointId, id, m.look().name(), m.outcome(), probes.vantage());
        runbooks.stand(endpointId);
        log.write(Log.entry(by, failed ? "checks failed" : "checks held")
                .at(endpoint.siteId(), endpointId)
                .after(results));
        return id;
    }

    private Target target(EndpointStore.Row e) {
        if (e.address() == null || e.mac() == null || e.serial().isEmpty())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "facts-missing",
                    "Address, MAC and serial must be on record before it can be proved.");
        var partner = Optional.ofNullable(e.partnerId())
                .map(siteStore::partner)
                .map(p -> new Target.Partner(p.name(), p.address(), Optional.ofNullable(p.testPort())));
        var known = new HashMap<Mac, String>();
        store.holders(e.siteId()).stream().filter(h -> h.mac() != null).forEach(h -> known.put(h.mac(), h.name()));
        var target = new Target(
                e.address(),
                e.mac(),
                e.serial(),
                e.servicePort(),
                sites.ground(sites.segment(e.segmentId()), e.address()).segment(),
                runbooks.kind(e).service(),
                partner,
                known);
        List<Ipv4Prefix> own = siteStore.segments(e.siteId()).stream()
                .flatMap(s -> Stream.of(s.prefix(), s.nextPrefix()))
                .filter(Objects::nonNull)
                .toList();
        if (!Ladder.onOwnGround(target, own))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "foreign-ground",
                    "The endpoint or its partner lies outside this site's segments. Checks stay on the site's own ground.");
        return target;
    }

    /** Returns the latest round of checks, or empty when none was made. */
    public Optional<Round> latest(long endpointId) {
        return Optional.ofNullable(rounds.latest(endpointId)).map(this::view);
    }

    private Round view(RoundStore.Row row) {
        var results = json.readValue(row.results().text(), new TypeReference<List<CheckResult>>() {});
        boolean askAtPartner = results.stream()
                .anyMatch(r -> (r.check() == Check.PARTNER || r.check() == Check.SERVICE)
                        && r.knot() == Knot.LEFT_OUT
                        && !r.remedy().isEmpty());
        boolean proved = results.stream()
                .anyMatch(r -> r.check() == Check.SERVICE && (r.knot() == Knot.TIGHT || r.knot() == Knot.LEFT_OUT));
        return new Round(row.id(), row.at(), row.by(), row.failed(), !row.failed() && proved, askAtPartner, results);
    }

    /** Signs off what the latest round proved. */
    @Transactional
    public void signOff(long endpointId, int expected, String seenAtPartner, String by) {
        var endpoint = endpoints.get(endpointId);
        var missing = runbooks.runbook(endpoint);
        if (!missing.readyToConfirm())
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "steps-before",
                    "The runbook is not done yet. Next: "
                            + missing.current().orElseThrow().title() + ".");
        var round = latest(endpointId)
                .filter(Round::holds)
                .orElseThrow(() -> Problem.of(
                        HttpStatus.CONFLICT,
                        "not-proved",
                        "The checks do not all hold. Run them and mend what fails first."));
        if (round.at().isBefore(clock.instant().minus(FRESH)))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "proof-too-old",
                    "The last checks are more than 15 minutes old. Run them once more, then sign off.");
        String seen = seenAtPartner == null ? "" : seenAtPartner.strip();
        Words.problem(seen, round.askAtPartner()).ifPresent(p -> {
            throw Problem.field("seenAtPartner", "bad-words", "Say what was seen at the partner's side. " + p);
        });
        if (store.touch(endpointId, expected) == 0) throw Etags.stale();
        store.confirm(endpointId, clock.instant(), by);
        steps.confirmed(endpoint, by);
        runbooks.stand(endpointId);
        log.write(Log.entry(by, "signed off")
                .at(endpoint.siteId(), endpointId)
                .after(round)
                .because(seen));
    }
}
