package app.knottag.server.record;

import app.knottag.core.kind.Kind;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Surroundings;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import org.springframework.stereotype.Component;

/** Which steps apply, worked out once for whatever it hangs on; of many endpoints that is the same. */
@Component
class Recipes {

    private static final int MOST = 2_000;

    /** A file that a lead brings back may hold the same version in other words, so the kind itself counts too. */
    private record Tailored(int kind, Method method, boolean partner, List<String> answers, List<String> registries) {}

    private final Cache<Tailored, Recipe> known =
            Caffeine.newBuilder().maximumSize(MOST).build();

    Recipe of(Kind kind, Surroundings around) {
        var answers = kind.questions().stream()
                .map(q -> around.answers().getOrDefault(q.key(), q.usual()))
                .toList();
        var key = new Tailored(
                System.identityHashCode(kind),
                around.method(),
                around.partner().isPresent(),
                answers,
                around.registries());
        var recipe = known.get(key, k -> Recipe.of(kind, around));
        // Two objects may have one number, though seldom.
        return recipe.kind().id().equals(kind.id()) && recipe.kind().version() == kind.version()
                ? recipe
                : Recipe.of(kind, around);
    }
}
