package app.knottag.server.verify;

import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Evidence;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.PacketWay;
import app.knottag.core.reach.Pasted;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.record.CheckRunStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What can be the cause when an endpoint does not reach its service, and what to look at next. */
@RestController
class DiagnosisController {

    private static final int MOST_SUSPECTS = 5;
    private static final int MOST_LOOKS = 60;

    /** What is meant; without a word it is not known how it is joined, and its address is typed into it, not handed out. */
    record TraitsRequest(
            boolean registered,
            boolean partnered,
            boolean speaks,
            boolean callsOut,
            @Nullable Joined joined,
            @Nullable Boolean reserved) {}

    /** A look that was made; without another word it was measured by a machine, or seen by who says so. */
    record AnswerRequest(
            @NotNull Question question,
            @NotNull Outcome outcome,
            @Nullable Evidence evidence) {}

    /** Shares 0..0.5 instead of the book's own: how often eyes and machines misread, and how often it is something unknown. */
    record SettingsRequest(
            @DecimalMin("0.0001") @DecimalMax("0.5") Double eyes,
            @DecimalMin("0.0001") @DecimalMax("0.5") Double machine,
            @DecimalMin("0.0001") @DecimalMax("0.5") Double noneOfThese) {}

    /** What was seen of an endpoint that is meant to be so; {@code passed} cannot be looked at and is not proposed. */
    record DiagnoseRequest(
            @NotNull @Valid TraitsRequest traits,
            @NotNull List<@Valid AnswerRequest> made,
            @Nullable List<Question> passed,
            @Nullable @Valid SettingsRequest settings) {}

    record SuspectView(
            List<Fault> faults,
            String title,
            double probability,
            int group,
            List<String> explains,
            List<String> contradicts,
            List<String> remedy,
            String call) {}

    record OutcomeView(Outcome outcome, String words) {}

    record NextView(
            Question question,
            String words,
            double minutes,
            double gain,
            List<OutcomeView> outcomes,
            List<String> signals) {}

    record SeenView(Question question, String said, String by, boolean eyes) {}

    record DiagnosisView(
            List<SuspectView> suspects,
            double noneOfThese,
            double others,
            boolean contradictory,
            List<String> doubtful,
            @Nullable NextView next,
            boolean found,
            String stop,
            List<SeenView> seen,
            List<WayView> way,
            List<String> lately,
            boolean learns,
            List<MendedView> mended) {}

    /** A stretch of the way of a packet, and how likely it breaks there. */
    record WayView(String title, double share, PacketWay.State state, boolean next) {}

    /** What somebody said had mended an endpoint; with enough of them the site's own book is learned. */
    record MendedView(long checkRunId, String title, String endpoint, Instant at, String by) {}

    private final Endpoints endpoints;
    private final Diagnoses diagnoses;
    private final Confirm confirm;
    private final FaultBook book = FaultBook.shipped();

    DiagnosisController(Endpoints endpoints, Diagnoses diagnoses, Confirm confirm) {
        this.endpoints = endpoints;
        this.diagnoses = diagnoses;
        this.confirm = confirm;
    }

    /** Diagnoses what is handed in; keeps nothing. */
    @PostMapping("/api/reach/diagnose")
    DiagnosisView diagnose(@Valid @RequestBody DiagnoseRequest body) {
        if (body.made().size() > MOST_LOOKS)
            throw Problem.field("made", "too-many", "At most " + MOST_LOOKS + " looks are weighed.");
        var t = body.traits();
        var scene = NetworkState.intended(
                new NetworkState.Traits(
                        t.registered(),
                        t.partnered(),
                        t.speaks(),
                        t.callsOut(),
                        t.joined() == null ? Joined.UNKNOWN : t.joined()),
                NetworkState.Layout.USUAL.handedOut(Boolean.TRUE.equals(t.reserved())));
        var made = new ArrayList<Made>();
        for (int i = 0; i < body.made().size(); i++)
            made.add(made("made/" + i, body.made().get(i)));
        var passed = body.passed() == null ? Set.<Question>of() : Set.copyOf(body.passed());
        var own = book(body.settings());
        var verdict = Diagnosis.of(scene, own, made, passed);
        var searched = new Diagnoses.Searched(verdict, PacketWay.of(scene, own, made, verdict), List.of(), List.of());
        return view(searched, made, List.of(), List.of());
    }

    private FaultBook book(@Nullable SettingsRequest s) {
        if (s == null) return book;
        var usual = book.misreading();
        return book.with(
                new FaultBook.Misreading(
                        s.eyes() == null ? usual.eyes() : s.eyes(),
                        s.eyes() == null ? usual.imagined() : usual.imagined() * s.eyes() / usual.eyes(),
                        s.machine() == null ? usual.machine() : s.machine(),
                        usual.told(),
                        usual.shown(),
                        usual.questions()),
                s.noneOfThese() == null ? book.noneOfThese() : s.noneOfThese());
    }

    private static Made made(String field, AnswerRequest question) {
        try {
            return question.evidence() == null
                    ? new Made(question.question(), question.outcome())
                    : new Made(question.question(), question.outcome(), question.evidence());
        } catch (ReadingException e) {
            throw Problem.field(field + "/outcome", "no-such-outcome", e.getMessage());
        }
    }

    @GetMapping("/api/endpoints/{id}/diagnosis")
    DiagnosisView of(@PathVariable long id) {
        var endpoint = endpoints.get(id);
        var looked = diagnoses.looked(id, diagnoses.failed(endpoint).id());
        var seen = looked.rows().stream().map(this::seen).toList();
        return view(
                diagnoses.search(endpoint, looked),
                looked.made(),
                seen,
                ReachController.signals(diagnoses.kind(endpoint)));
    }

    private SeenView seen(CheckRunStore.AnswerRow row) {
        var question = row.question();
        boolean phone = row.evidence() == Evidence.SPOKEN;
        return new SeenView(
                question,
                book.said(question, row.outcome()) + (phone ? " (said on the phone)" : ""),
                row.by(),
                question.by() == Question.By.EYES);
    }

    record PastedRequest(@NotNull String text) {}

    record PastedFinding(String words, boolean fits) {}

    /** What a pasted text says of an endpoint; {@code weighed} when it was taken into a search for the cause. */
    record PastedView(String form, boolean sure, List<PastedFinding> findings, boolean weighed) {}

    /** Reads what another tool or the device said, and weighs it when something fails. The text itself is not kept. */
    @PostMapping("/api/endpoints/{id}/pasted")
    PastedView pasted(@PathVariable long id, @Valid @RequestBody PastedRequest body, Principal by) {
        if (body.text().isBlank()) throw Problem.field("text", "missing", "Paste something first.");
        if (body.text().length() > Pasted.LONGEST)
            throw Problem.field("text", "too-long", "At most " + Pasted.LONGEST + " characters are read.");
        var pasted = diagnoses.pasted(endpoints.get(id), body.text(), by.getName());
        var read = pasted.read();
        return new PastedView(
                read.form().words(),
                read.sure(),
                read.findings().stream()
                        .map(f -> new PastedFinding(f.words(), f.fits()))
                        .toList(),
                pasted.weighed());
    }

    /** Keeps what somebody saw; one that cannot be told is not asked again. */
    @PutMapping("/api/endpoints/{id}/diagnosis/answers")
    DiagnosisView question(@PathVariable long id, @Valid @RequestBody AnswerRequest body, Principal by) {
        var endpoint = endpoints.get(id);
        if (body.outcome() != Outcome.CANNOT_BE_TOLD) made("", body);
        var how = body.evidence() == null ? Evidence.SEEN : body.evidence();
        if (how == Evidence.TOOL) throw Problem.field("evidence", "no-tool", "Only the checks themselves measure.");
        diagnoses.saw(endpoint, body.question(), body.outcome(), how, by.getName());
        return of(id);
    }

    record MendedRequest(@NotNull Fault fault) {}

    /** Keeps what a person says mended it; the next search at this site weighs it. */
    @PostMapping("/api/endpoints/{id}/diagnosis/mended")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void mended(@PathVariable long id, @Valid @RequestBody MendedRequest body, Principal by) {
        confirm.mended(id, body.fault(), by.getName());
    }

    /** Takes back what was learned from one mended endpoint. */
    @DeleteMapping("/api/sites/{siteId}/mended/{checkRunId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forget(@PathVariable long siteId, @PathVariable long checkRunId, Principal by) {
        confirm.forget(siteId, checkRunId, by.getName());
    }

    private DiagnosisView view(
            Diagnoses.Searched searched, List<Made> made, List<SeenView> seen, List<String> signals) {
        var verdict = searched.verdict();
        return new DiagnosisView(
                verdict.suspects().stream()
                        .limit(MOST_SUSPECTS)
                        .map(s -> view(s, made))
                        .toList(),
                verdict.noneOfThese(),
                1
                        - verdict.noneOfThese()
                        - verdict.suspects().stream()
                                .limit(MOST_SUSPECTS)
                                .collect(Collectors.summingDouble(Diagnosis.Suspect::probability)),
                verdict.contradictory(),
                verdict.doubtful().stream().map(Question::words).toList(),
                verdict.next()
                        .map(n -> new NextView(
                                n.question(),
                                n.question().words(),
                                n.minutes(),
                                n.gain(),
                                n.question().outcomes().stream()
                                        .map(o -> new OutcomeView(o, book.words(n.question(), o)))
                                        .toList(),
                                n.question() == Question.LINK ? signals : List.of()))
                        .orElse(null),
                verdict.found(),
                verdict.stop(),
                seen,
                searched.way().stream()
                        .map(w -> new WayView(w.title(), w.share(), w.state(), w.next()))
                        .toList(),
                searched.lately().stream()
                        .map(c -> book.lately().get(c.what()).words())
                        .toList(),
                searched.learned().size() >= FaultBook.ENOUGH,
                searched.learned().stream()
                        .map(f -> new MendedView(
                                f.checkRunId(), book.of(f.fault()).title(), f.endpoint(), f.at(), f.by()))
                        .toList());
    }

    /** What was seen, as one says it. */
    private String told(Question question, List<Made> made) {
        return made.stream()
                .filter(m -> m.question() == question)
                .map(m -> book.said(question, m.outcome()))
                .findFirst()
                .orElseGet(question::words);
    }

    private SuspectView view(Diagnosis.Suspect s, List<Made> made) {
        return new SuspectView(
                s.faults(),
                s.title(),
                s.probability(),
                s.group(),
                s.explains().stream().map(l -> told(l, made)).toList(),
                s.contradicts().stream().map(l -> told(l, made)).toList(),
                s.remedy(),
                s.call());
    }
}
