package app.knottag.server.verify;

import app.knottag.core.reach.CauseBook;
import app.knottag.core.reach.CauseBook.Shared;
import app.knottag.core.reach.CommonCause;
import app.knottag.core.reach.CommonCause.Common;
import app.knottag.core.reach.CommonCause.Member;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Look;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.RoundStore;
import app.knottag.server.verify.CaseStore.SeenRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Several endpoints that fail at the same time, weighed as one case. */
@Service
class Cases {

    /** Checks of so long ago say how things stand now. */
    private static final Duration FRESH = Duration.ofHours(2);

    /** What somebody says of one endpoint, or how it is known. */
    enum Word {
        /** Its latest checks say. */
        CHECKED,
        WORKS,
        DARK,
        NO_JOB,
        NO_INTERNET,
        /** It did not answer in a sweep. */
        SILENT,
        /** It answered in a sweep. */
        ANSWERED,
        /** It answered in a sweep, at another address than the planned one. */
        MOVED
    }

    private static final Set<Word> BY_MACHINE = EnumSet.of(Word.CHECKED, Word.SILENT, Word.ANSWERED, Word.MOVED);

    /** One endpoint of a case. */
    record Told(long endpointId, Word word) {}

    /** What was seen of those endpoints. */
    record Answer(Look look, String outcome, List<Long> endpointIds) {}

    private final CaseStore store;
    private final Endpoints endpoints;
    private final Diagnoses diagnoses;
    private final RoundStore rounds;
    private final Targets targets;
    private final Log log;
    private final Clock clock;

    Cases(
            CaseStore store,
            Endpoints endpoints,
            Diagnoses diagnoses,
            RoundStore rounds,
            Targets targets,
            Log log,
            Clock clock) {
        this.store = store;
        this.endpoints = endpoints;
        this.diagnoses = diagnoses;
        this.rounds = rounds;
        this.targets = targets;
        this.log = log;
        this.clock = clock;
    }

    /** A case with its members, in the order in which they were told. */
    record Case(List<Member> members, List<Long> ids, CommonCause.Verdict verdict, CauseBook book) {}

    Case weigh(long siteId, List<Told> told, List<Answer> answers) {
        var now = clock.instant();
        var ids = told.stream().map(t -> String.valueOf(t.endpointId())).collect(Collectors.joining(","));
        var hang = store.hang(siteId, ids, now.minus(Diagnoses.LATELY)).stream()
                .collect(Collectors.toMap(CaseStore.HangRow::id, h -> h));
        var seen = store.seen(ids, now.minus(FRESH)).stream().collect(Collectors.groupingBy(SeenRow::endpointId));
        var members = new ArrayList<Member>();
        var at = new ArrayList<Long>();
        for (var t : told) {
            var endpoint = endpoints.get(t.endpointId());
            if (!hang.containsKey(t.endpointId()) || targets.provable(endpoint).isEmpty()) continue;
            members.add(member(
                    endpoint, t, hang.get(t.endpointId()), seen.getOrDefault(t.endpointId(), List.of()), answers));
            at.add(t.endpointId());
        }
        var book = diagnoses.book(siteId);
        return new Case(members, at, CommonCause.of(members, book), book);
    }

    private Member member(
            EndpointStore.Row endpoint, Told told, CaseStore.HangRow hang, List<SeenRow> seen, List<Answer> answers) {
        var made = new ArrayList<>(told.word() == Word.CHECKED ? seen(seen) : said(told.word()));
        for (var a : answers) if (a.endpointIds().contains(endpoint.id())) made.add(new Made(a.look(), a.outcome()));
        var last = new EnumMap<Look, Made>(Look.class);
        made.forEach(m -> last.put(m.look(), m));
        return new Member(
                endpoint.name(), diagnoses.scene(endpoint), List.copyOf(last.values()), common(endpoint, told, hang));
    }

    private static List<Made> seen(List<SeenRow> rows) {
        return rows.stream()
                .map(r -> new Made(r.look(), r.outcome(), r.evidence()))
                .toList();
    }

    private static List<Made> said(Word word) {
        return switch (word) {
            case CHECKED -> List.of();
            case WORKS -> List.of(new Made(Look.REAL_JOB, "done"));
            case DARK -> List.of(new Made(Look.POWER, "off"));
            case NO_JOB -> List.of(new Made(Look.REAL_JOB, "fails"));
            case NO_INTERNET -> List.of(new Made(Look.OUTSIDE, "no"));
            case SILENT -> List.of(new Made(Look.NEIGHBOUR, "nobody"), new Made(Look.PING, "silent"));
            case MOVED ->
                List.of(
                        new Made(Look.VANTAGE, "own"),
                        new Made(Look.NEIGHBOUR, "nobody"),
                        new Made(Look.LEASES, "leased"));
            case ANSWERED ->
                List.of(
                        new Made(Look.VANTAGE, "own"),
                        new Made(Look.NEIGHBOUR, "right"),
                        new Made(Look.PING, "answers"));
        };
    }

    private HashSet<Common> common(EndpointStore.Row endpoint, Told told, CaseStore.HangRow hang) {
        var on = new HashSet<Common>();
        var kind = diagnoses.kind(endpoint);
        on.add(new Common(Shared.SITE, ""));
        on.add(new Common(Shared.SEGMENT, hang.segment()));
        if (hang.gear() != null) on.add(new Common(Shared.SWITCH, hang.gear()));
        if (hang.place() != null) on.add(new Common(Shared.STRIP, hang.place()));
        if (hang.partner() != null) on.add(new Common(Shared.PARTNER, hang.partner()));
        if (Targets.callsOut(kind)) on.add(new Common(Shared.SERVICE, "the service of a " + kind.noun()));
        if (hang.renumberedAt() != null) on.add(new Common(Shared.CHANGE, hang.segment()));
        if (BY_MACHINE.contains(told.word())) on.add(new Common(Shared.MACHINE, ""));
        return on;
    }

    /** Keeps what was seen at each endpoint whose own search goes on, so that nobody is asked twice. */
    @Transactional
    void keep(long siteId, Answer answer, String by) {
        for (long id : answer.endpointIds()) {
            var endpoint = endpoints.get(id);
            var round = rounds.latest(id);
            if (endpoint.siteId() != siteId) throw Problem.notFound("There is no such endpoint at this site.");
            if (round == null || !round.failed()) continue;
            rounds.keepLook(id, round.id(), answer.look(), answer.outcome(), Evidence.SEEN, by);
            log.write(Log.entry(by, "looked: " + answer.look().words())
                    .at(siteId, id)
                    .after(CauseBook.shipped().words(answer.look(), answer.outcome())));
        }
    }
}
