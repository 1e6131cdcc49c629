package app.knottag.server.onboard;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Recipe;
import app.knottag.server.change.Consequences;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.OnboardStore;
import app.knottag.server.record.OnboardStore.OpeningRow;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps what is known around a runbook: answers, openings, resets, the version of its kind. */
@Service
public class OnboardWork {

    private static final Set<String> OTHER_FACTS = Set.of(EndpointContext.SEALS, EndpointContext.CASE);

    private final Endpoints endpoints;
    private final EndpointStore store;
    private final Runbooks runbooks;
    private final Consequences consequences;
    private final OnboardStore onboard;
    private final Kinds kinds;
    private final Log log;

    OnboardWork(
            Endpoints endpoints,
            EndpointStore store,
            Runbooks runbooks,
            Consequences consequences,
            OnboardStore onboard,
            Kinds kinds,
            Log log) {
        this.endpoints = endpoints;
        this.store = store;
        this.runbooks = runbooks;
        this.consequences = consequences;
        this.onboard = onboard;
        this.kinds = kinds;
        this.log = log;
    }

    /**
     * What is said of something that stands open.
     *
     * @param ends by which day it is closed; empty when it is closed
     * @param title what it is, when the kind does not say it; may be empty
     */
    public record OpeningSaid(
            boolean closed, String owner, Optional<LocalDate> ends, String note, String title, Danger danger) {

        /** What is said of an opening that is closed. */
        public static OpeningSaid done() {
            return new OpeningSaid(true, "", Optional.empty(), "", "", Danger.OTHER);
        }
    }

    private EndpointStore.Row claim(long id, int expected) {
        var endpoint = endpoints.get(id);
        if (store.touch(id, expected) == 0) throw Etags.stale();
        return endpoint;
    }

    @Transactional
    public void facts(long id, int expected, Map<String, String> facts, String by) {
        var endpoint = claim(id, expected);
        var kind = runbooks.kind(endpoint);
        var was = runbooks.facts(id);
        facts.forEach((key, text) -> {
            String value = FormReader.words("facts/" + key, text, false);
            if (!value.isEmpty()) refuseUnknown(kind, key, value);
            if (value.isEmpty()) onboard.dropFact(id, key);
            else onboard.keepFact(id, key, value);
        });
        consequences.stand(id);
        log.write(Log.entry(by, "facts changed")
                .at(endpoint.siteId(), id)
                .before(was)
                .after(runbooks.facts(id)));
    }

    private static void refuseUnknown(Kind kind, String key, String value) {
        if (OTHER_FACTS.contains(key)) return;
        var question = kind.questions().stream()
                .filter(q -> q.key().equals(key))
                .findFirst()
                .orElseThrow(() -> Problem.field("facts/" + key, "no-such-fact", "Nothing asks for “" + key + "”."));
        if (question.options().stream().noneMatch(o -> o.value().equals(value)))
            throw Problem.field(
                    "facts/" + key, "no-such-answer", "“" + value + "” is no answer to “" + question.ask() + "”.");
    }

    @Transactional
    public void opening(long id, int expected, String key, OpeningSaid said, String by) {
        var endpoint = claim(id, expected);
        if (!key.matches("[a-z][a-z0-9-]{1,39}"))
            throw Problem.field("key", "bad-key", "A key has small letters, digits and hyphens.");
        var own = runbooks.kind(endpoint).openings().stream()
                .filter(o -> o.key().equals(key))
                .findFirst();
        var known =
                onboard.openings(id).stream().filter(o -> o.key().equals(key)).findFirst();
        String title = own.map(o -> o.title())
                .or(() -> known.map(OpeningRow::title))
                .orElseGet(() -> FormReader.words("title", said.title(), true));
        var danger =
                own.map(o -> o.danger()).or(() -> known.map(OpeningRow::danger)).orElse(said.danger());
        onboard.keepOpening(new OpeningRow(
                id, key, danger, title, said.owner(), said.ends().orElse(null), said.closed(), said.note(), by));
        consequences.stand(id);
        log.write(Log.entry(by, (said.closed() ? "closed: " : "stands open: ") + title)
                .at(endpoint.siteId(), id)
                .before(known.orElse(null))
                .after(Map.of(
                        "owner",
                        said.owner(),
                        "ends",
                        said.ends().map(LocalDate::toString).orElse("")))
                .because(said.note()));
    }

    @Transactional
    public void reset(long id, int expected, String why, String backup, String by) {
        var endpoint = claim(id, expected);
        var whole = runbooks.kind(endpoint);
        var rule = whole.reset()
                .orElseThrow(
                        () -> Problem.of(HttpStatus.CONFLICT, "no-reset", "Nothing is known of a reset of this kind."));
        String reason = FormReader.words("why", why, true);
        String cover = FormReader.words("backup", backup, rule.data());
        var runbook = runbooks.runbook(endpoint);
        var redone = Recipe.redo(whole, runbook.kind());
        consequences.reset(endpoint, redone, by);
        var after = new LinkedHashMap<String, Object>();
        after.put("again", redone);
        after.put(
                "open",
                runbooks.openings(endpoint).stream().map(OpenState::title).toList());
        if (!cover.isEmpty()) after.put("backup", cover);
        log.write(Log.entry(by, "was reset")
                .at(endpoint.siteId(), id)
                .after(after)
                .because(reason));
    }

    /** It stands at another address than its own: the steps that enter it are opened again. */
    @Transactional
    public void readdressed(long id, int expected, String why, String by) {
        var endpoint = claim(id, expected);
        String reason = FormReader.words("why", why, true);
        consequences.readdressed(endpoint);
        log.write(Log.entry(by, "its address is entered again")
                .at(endpoint.siteId(), id)
                .because(reason));
    }

    @Transactional
    public void latest(long id, int expected, String by) {
        var endpoint = endpoints.get(id);
        int version = kinds.get(endpoint.kind()).version();
        if (store.recipe(id, version, expected) == 0) throw Etags.stale();
        consequences.stand(id);
        log.write(Log.entry(by, "runbook goes by version " + version)
                .at(endpoint.siteId(), id)
                .before(endpoint.kindVersion())
                .after(version));
    }
}
