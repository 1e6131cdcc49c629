package app.knottag.server.record;

import app.knottag.core.kind.Kind;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.EndpointContext;
import app.knottag.core.runbook.Recipe;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import org.springframework.stereotype.Component;

/** Which steps apply, worked out once for whatever it hangs on; of many endpoints that is the same. */
@Component
class Recipes {

    /** So many are kept of each kind. */
    private static final int MOST = 200;

    /** What a recipe hangs on beside its kind. */
    private record Tailored(Method method, boolean partner, List<String> answers, List<String> registries) {}

    /** By the kind itself: a file that a lead brings back may hold the same version in other words. */
    private final Cache<Kind, Cache<Tailored, Recipe>> known =
            Caffeine.newBuilder().weakKeys().build();

    Recipe of(Kind kind, EndpointContext around) {
        var answers = kind.questions().stream()
                .map(q -> around.answers().getOrDefault(q.key(), q.usual()))
                .toList();
        var key = new Tailored(around.method(), around.partner().isPresent(), answers, around.registries());
        return known.get(kind, k -> Caffeine.newBuilder().maximumSize(MOST).build())
                .get(key, k -> Recipe.of(kind, around));
    }
}
