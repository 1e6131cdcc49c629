package app.knottag.server.register;

import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.register.Lifetime;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.Registry.Naming;
import app.knottag.core.register.Registry.Rules;
import app.knottag.core.register.Registry.Sharing;
import app.knottag.core.register.Registry.Type;
import app.knottag.core.register.RegistryForm;
import app.knottag.server.record.Sites;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Reads what was typed about a registry and its rules. */
@Component
public class RegistryFactsForm {

    /** A registry as it is typed in; no lifetime unit means that its entries last. */
    public record RegistryRequest(
            @NotNull String name,
            @NotNull Type type,
            Long segmentId,
            Medium medium,
            List<String> kinds,
            @NotNull Naming naming,
            int longestName,
            boolean ownerNeeded,
            @NotNull Sharing sharing,
            int most,
            Lifetime.Unit lifetimeUnit,
            int lifetime,
            boolean restart,
            @NotNull Set<Fact> facts,
            List<String> models,
            String waitsFor,
            int leadDays,
            @NotNull RegistryForm form) {

        /** Fills in what such a place usually has. */
        public static RegistryRequest usual(Registry.Type type, String name, Long segmentId, List<String> kinds) {
            var u = Rules.usual(type);
            return new RegistryRequest(
                    name,
                    type,
                    segmentId,
                    null,
                    kinds,
                    u.naming(),
                    u.longestName(),
                    u.ownerNeeded(),
                    u.sharing(),
                    u.most(),
                    u.lifetime().map(Lifetime::unit).orElse(null),
                    u.lifetime().map(Lifetime::amount).orElse(0),
                    u.restart(),
                    u.facts(),
                    u.models(),
                    u.waitsFor(),
                    u.leadDays(),
                    u.form());
        }
    }

    /** What was read; no segment, medium or kind means any. */
    record RegistryFacts(
            String name,
            Type type,
            @Nullable Long segmentId,
            @Nullable Medium medium,
            List<String> kinds,
            Rules rules) {}

    private static final int LONGEST = 80;

    private final Sites sites;
    private final Kinds kinds;

    RegistryFactsForm(Sites sites, Kinds kinds) {
        this.sites = sites;
        this.kinds = kinds;
    }

    public RegistryFacts read(long siteId, RegistryRequest b) {
        if (b.segmentId() != null) sites.segmentOf(siteId, b.segmentId());
        var wanted = Optional.ofNullable(b.kinds()).orElse(List.of());
        wanted.stream().filter(k -> kinds.find(k).isEmpty()).findFirst().ifPresent(k -> {
            throw Problem.field("kinds", "no-such-kind", "There is no kind “" + k + "”.");
        });
        return new RegistryFacts(words("name", b.name(), true), b.type(), b.segmentId(), b.medium(), wanted, rules(b));
    }

    private static String words(String field, String text, boolean needed) {
        String words = FormReader.words(field, text, needed);
        if (words.length() > LONGEST)
            throw Problem.field(
                    field, "bad-words", "At most " + LONGEST + " characters; this has " + words.length() + ".");
        return words;
    }

    private static Rules rules(RegistryRequest b) {
        Optional<Lifetime> lifetime;
        try {
            lifetime = Optional.ofNullable(b.lifetimeUnit()).map(u -> new Lifetime(u, b.lifetime()));
        } catch (ReadingException e) {
            throw Problem.field("lifetime", "bad-lifetime", "An entry lasts 1 to 8784 hours, or 1 to 3660 days.");
        }
        try {
            return new Rules(
                    b.naming(),
                    b.longestName(),
                    b.ownerNeeded(),
                    b.sharing(),
                    b.most(),
                    lifetime,
                    b.restart(),
                    b.facts(),
                    Optional.ofNullable(b.models()).orElse(List.of()).stream()
                            .map(m -> words("models", m, false))
                            .filter(m -> !m.isEmpty())
                            .toList(),
                    words("waitsFor", b.waitsFor(), false),
                    b.leadDays(),
                    b.form());
        } catch (ReadingException e) {
            String field = e.getMessage().startsWith("a name")
                    ? "longestName"
                    : e.getMessage().startsWith("a registry") ? "most" : "leadDays";
            throw Problem.field(field, "out-of-range", e.getMessage());
        }
    }
}
