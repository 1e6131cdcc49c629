package app.knottag.server.plan;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The kinds of endpoint that can be added. */
@Configuration
class KindConfig {

    @Bean
    Kinds kinds() {
        return Kinds.shipped();
    }

    /** A kind as the page needs it to choose one. */
    record KindView(String id, String name, String noun, String series, String labelPlace, String fixedBecause) {}

    @RestController
    static class KindController {
        private final Kinds kinds;

        KindController(Kinds kinds) {
            this.kinds = kinds;
        }

        @GetMapping("/api/kinds")
        List<KindView> all() {
            return kinds.all().stream().map(KindController::view).toList();
        }

        private static KindView view(Kind kind) {
            return new KindView(
                    kind.id(), kind.name(), kind.noun(), kind.series(), kind.labelPlace(), kind.fixedBecause());
        }
    }
}
