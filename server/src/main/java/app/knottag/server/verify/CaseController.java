package app.knottag.server.verify;

import app.knottag.core.reach.CommonCause;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.record.Sites;
import app.knottag.server.verify.Cases.Answer;
import app.knottag.server.verify.Cases.Told;
import app.knottag.server.verify.Cases.Word;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Several endpoints that fail at the same time, over HTTP. */
@RestController
class CaseController {

    private static final int MOST = 60;
    private static final int MOST_SUSPECTS = 4;

    record CaseMember(long endpointId, @NotNull Word word) {}

    record CaseAnswer(
            @NotNull Question question,
            @NotNull Outcome outcome,
            @NotNull List<Long> endpointIds) {}

    /** What is known of several endpoints; answers count for those that were not checked lately. */
    record CaseRequest(
            @NotNull List<@Valid CaseMember> members,
            @NotNull List<@Valid CaseAnswer> answers) {}

    /** What was seen after these runs of checks. */
    record CaseSeenRequest(
            @NotNull Question question,
            @NotNull Outcome outcome,
            @NotNull @Size(max = MOST) List<@NotNull Long> checkRunIds) {}

    /** One shared fault; {@code says} names who fails with whom, and on what they hang. */
    record CaseSuspect(String title, double probability, String says, List<String> remedy, String call) {}

    /**
     * The look that tells most; the first endpoint is where it is made, and it counts for all of them. What is seen is kept with
     * the runs of those that were checked.
     */
    record CaseNext(
            Question question,
            String words,
            String at,
            double minutes,
            List<DiagnosisController.OutcomeView> outcomes,
            List<Long> endpointIds,
            List<Long> checkRunIds) {}

    /** Whether several endpoints are one case, and which; {@code apart} is how likely each has a fault of its own. */
    record CaseView(
            boolean oneCase,
            List<CaseSuspect> suspects,
            double apart,
            @Nullable CaseNext next,
            boolean found) {}

    private final Cases cases;
    private final Sites sites;

    CaseController(Cases cases, Sites sites) {
        this.cases = cases;
        this.sites = sites;
    }

    @PostMapping("/api/sites/{siteId}/case")
    CaseView weigh(@PathVariable long siteId, @Valid @RequestBody CaseRequest body) {
        sites.site(siteId);
        if (body.members().size() > MOST)
            throw Problem.field("members", "too-many", "At most " + MOST + " endpoints are weighed together.");
        var told = body.members().stream()
                .map(m -> new Told(m.endpointId(), m.word()))
                .distinct()
                .toList();
        var answers = body.answers().stream().map(CaseController::answer).toList();
        return view(cases.weigh(siteId, told, answers));
    }

    /** Keeps what was seen, with the runs of checks after which somebody looked. */
    @PutMapping("/api/sites/{siteId}/case/answers")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void keep(@PathVariable long siteId, @Valid @RequestBody CaseSeenRequest body, Principal by) {
        sites.site(siteId);
        cases.keep(siteId, made("outcome", body.question(), body.outcome()), body.checkRunIds(), by.getName());
    }

    /** Takes back what oneself has said was seen after these runs. */
    @DeleteMapping("/api/sites/{siteId}/case/answers/{question}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeBack(
            @PathVariable long siteId,
            @PathVariable Question question,
            @RequestParam @Size(max = MOST) List<Long> checkRunIds,
            Principal by) {
        sites.site(siteId);
        cases.takeBack(siteId, question, checkRunIds, by.getName());
    }

    private static Answer answer(CaseAnswer a) {
        made("answers", a.question(), a.outcome());
        return new Answer(a.question(), a.outcome(), a.endpointIds());
    }

    private static Made made(String field, Question question, Outcome outcome) {
        try {
            return new Made(question, outcome);
        } catch (ReadingException e) {
            throw Problem.field(field, "no-such-outcome", e.getMessage());
        }
    }

    private static CaseView view(Cases.Case c) {
        var v = c.verdict();
        var next = v.next()
                .filter(n -> v.oneCase())
                .map(n -> new CaseNext(
                        n.question(),
                        n.question().words(),
                        c.members().get(n.members().get(0)).name(),
                        n.question().minutes(),
                        n.question().outcomes().stream()
                                .map(o -> new DiagnosisController.OutcomeView(
                                        o, c.book().words(n.question(), o)))
                                .toList(),
                        n.members().stream().map(c.ids()::get).toList(),
                        n.members().stream()
                                .map(c.runs()::get)
                                .flatMap(Optional::stream)
                                .toList()))
                .orElse(null);
        return new CaseView(
                v.oneCase(),
                v.suspects().stream()
                        .filter(s -> s.probability() >= 0.02)
                        .limit(MOST_SUSPECTS)
                        .map(s -> suspect(c, s))
                        .toList(),
                v.apart(),
                next,
                v.found());
    }

    private static CaseSuspect suspect(Cases.Case c, CommonCause.Suspect s) {
        var entry = c.book().of(s.fault());
        return new CaseSuspect(
                entry.title(), s.probability(), CommonCause.says(c.members(), s), entry.remedy(), entry.call());
    }
}
