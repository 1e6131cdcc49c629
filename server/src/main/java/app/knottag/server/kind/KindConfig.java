package app.knottag.server.kind;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.springframework.boot.sql.init.dependency.DependsOnDatabaseInitialization;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The kinds of endpoint that there are; the book adds people's own and all earlier versions. */
@Configuration
class KindConfig {

    /** They are read while everything else starts. */
    private static final CompletableFuture<List<Kind>> SHIPPED = CompletableFuture.supplyAsync(Kinds::readShipped);

    @Bean
    @DependsOnDatabaseInitialization
    Kinds kinds(KindFileStore store) {
        var kinds = Kinds.of(SHIPPED.join());
        new KindBook.Shelf(store, kinds).fill();
        return kinds;
    }
}
