package app.knottag.server.verify;

import app.knottag.core.reach.CommonCause;
import app.knottag.core.reach.CommonCause.Common;
import app.knottag.core.reach.CommonCause.Member;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.FaultBook.Shared;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.server.log.Log;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.verify.CaseStore.SeenRow;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
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
    record Answer(Question question, Outcome outcome, List<Long> endpointIds) {}

    private final CaseStore store;
    private final Endpoints endpoints;
    private final Diagnoses diagnoses;
    private final CheckRunStore checkRuns;
    private final Targets targets;
    private final Log log;
    private final Clock clock;

    Cases(
            CaseStore store,
            Endpoints endpoints,
            Diagnoses diagnoses,
            CheckRunStore checkRuns,
            Targets targets,
            Log log,
            Clock clock) {
        this.store = store;
        this.endpoints = endpoints;
        this.diagnoses = diagnoses;
        this.checkRuns = checkRuns;
        this.targets = targets;
        this.log = log;
        this.clock = clock;
    }

    /**
     * A case with its members, in the order in which they were told.
     *
     * @param runs the run after which each was weighed, or empty when somebody's word was
     */
    record Case(
            List<Member> members,
            List<Long> ids,
            List<Optional<Long>> runs,
            CommonCause.Verdict verdict,
            FaultBook book) {}

    Case weigh(long siteId, List<Told> told, List<Answer> answers) {
        var now = clock.instant();
        var ids = told.stream().map(t -> String.valueOf(t.endpointId())).collect(Collectors.joining(","));
        var hang = store.hang(siteId, ids, now.minus(Diagnoses.LATELY)).stream()
                .collect(Collectors.toMap(CaseStore.HangRow::id, h -> h));
        var seen = store.seen(ids, now.minus(FRESH)).stream().collect(Collectors.groupingBy(SeenRow::endpointId));
        var members = new ArrayList<Member>();
        var at = new ArrayList<Long>();
        var runs = new ArrayList<Optional<Long>>();
        for (var t : told) {
            var endpoint = endpoints.get(t.endpointId());
            if (!hang.containsKey(t.endpointId()) || targets.provable(endpoint).isEmpty()) continue;
            var rows = t.word() == Word.CHECKED ? seen.getOrDefault(t.endpointId(), List.of()) : List.<SeenRow>of();
            members.add(member(endpoint, t, hang.get(t.endpointId()), rows, answers));
            at.add(t.endpointId());
            runs.add(rows.stream().map(SeenRow::checkRunId).findFirst());
        }
        var book = diagnoses.book(siteId);
        return new Case(members, at, runs, CommonCause.of(members, book), book);
    }

    private Member member(
            EndpointStore.Row endpoint, Told told, CaseStore.HangRow hang, List<SeenRow> seen, List<Answer> answers) {
        var made = new ArrayList<>(told.word() == Word.CHECKED ? seen(seen) : said(told.word()));
        // What was seen after a run is kept with it; what is sent along may be of an earlier one.
        if (seen.isEmpty())
            for (var a : answers)
                if (a.endpointIds().contains(endpoint.id())) made.add(new Made(a.question(), a.outcome()));
        var last = new EnumMap<Question, Made>(Question.class);
        made.forEach(m -> last.put(m.question(), m));
        return new Member(
                endpoint.name(), diagnoses.scene(endpoint), List.copyOf(last.values()), common(endpoint, told, hang));
    }

    private static List<Made> seen(List<SeenRow> rows) {
        return rows.stream()
                .map(r -> new Made(r.question(), r.outcome(), r.evidence()))
                .toList();
    }

    private static List<Made> said(Word word) {
        return switch (word) {
            case CHECKED -> List.of();
            case WORKS -> List.of(new Made(Question.REAL_JOB, Outcome.DONE));
            case DARK -> List.of(new Made(Question.POWER, Outcome.OFF));
            case NO_JOB -> List.of(new Made(Question.REAL_JOB, Outcome.FAILS));
            case NO_INTERNET -> List.of(new Made(Question.OUTSIDE, Outcome.NO));
            case SILENT ->
                List.of(new Made(Question.NEIGHBOUR, Outcome.NOBODY), new Made(Question.PING, Outcome.SILENT));
            case MOVED ->
                List.of(
                        new Made(Question.VANTAGE, Outcome.OWN),
                        new Made(Question.NEIGHBOUR, Outcome.NOBODY),
                        new Made(Question.LEASES, Outcome.LEASED));
            case ANSWERED ->
                List.of(
                        new Made(Question.VANTAGE, Outcome.OWN),
                        new Made(Question.NEIGHBOUR, Outcome.RIGHT),
                        new Made(Question.PING, Outcome.ANSWERS));
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
        if (kind.callsOut()) on.add(new Common(Shared.SERVICE, "the service of a " + kind.noun()));
        if (hang.renumberedAt() != null) on.add(new Common(Shared.CHANGE, hang.segment()));
        if (BY_MACHINE.contains(told.word())) on.add(new Common(Shared.MACHINE, ""));
        return on;
    }

    /** Keeps what was seen after these runs, so that nobody is asked twice; after a later run it says nothing any more. */
    @Transactional
    void keep(long siteId, Made seen, List<Long> checkRunIds, String by) {
        for (long run : checkRunIds) {
            long id = endpointOf(siteId, run);
            checkRuns.keepAnswer(id, run, seen.question(), seen.outcome(), Evidence.SEEN, by);
            log.write(Log.entry(by, "looked: " + seen.question().words())
                    .at(siteId, id)
                    .after(FaultBook.shipped().words(seen.question(), seen.outcome())));
        }
    }

    /** Takes back what the same person said was seen after these runs. */
    @Transactional
    void takeBack(long siteId, Question question, List<Long> checkRunIds, String by) {
        for (long run : checkRunIds) {
            long id = endpointOf(siteId, run);
            if (store.forget(run, question, by) > 0)
                log.write(Log.entry(by, "took back: " + question.words()).at(siteId, id));
        }
    }

    private long endpointOf(long siteId, long checkRunId) {
        return store.endpointOf(siteId, checkRunId)
                .orElseThrow(() -> Problem.notFound("There is no such run of checks at this site."));
    }
}
