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
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
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

    /** What is known of several endpoints; the last answer is new and kept where a search goes on. */
    record CaseRequest(
            @NotNull List<@Valid CaseMember> members,
            @NotNull List<@Valid CaseAnswer> answers,
            boolean keep) {}

    /** One shared fault; {@code says} names who fails with whom, and on what they hang. */
    record CaseSuspect(String title, double probability, String says, List<String> remedy, String call) {}

    /** The look that tells most; the first endpoint is where it is made, and it counts for all of them. */
    record CaseNext(
            Question question,
            String words,
            String at,
            double minutes,
            List<DiagnosisController.OutcomeView> outcomes,
            List<Long> endpointIds) {}

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
    CaseView weigh(@PathVariable long siteId, @Valid @RequestBody CaseRequest body, Principal by) {
        sites.site(siteId);
        if (body.members().size() > MOST)
            throw Problem.field("members", "too-many", "At most " + MOST + " endpoints are weighed together.");
        var told = body.members().stream()
                .map(m -> new Told(m.endpointId(), m.word()))
                .distinct()
                .toList();
        var answers = body.answers().stream().map(CaseController::answer).toList();
        if (body.keep() && !answers.isEmpty()) cases.keep(siteId, answers.get(answers.size() - 1), by.getName());
        return view(cases.weigh(siteId, told, answers));
    }

    private static Answer answer(CaseAnswer a) {
        try {
            new Made(a.question(), a.outcome());
        } catch (ReadingException e) {
            throw Problem.field("answers", "no-such-outcome", e.getMessage());
        }
        return new Answer(a.question(), a.outcome(), a.endpointIds());
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
                        n.members().stream().map(c.ids()::get).toList()))
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
