package app.knottag.server.kind;

import app.knottag.core.kind.Kinds;
import org.springframework.boot.sql.init.dependency.DependsOnDatabaseInitialization;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The kinds of endpoint that there are; the book adds people's own and all earlier versions. */
@Configuration
class KindConfig {

    @Bean
    @DependsOnDatabaseInitialization
    Kinds kinds(KindFileStore store) {
        var kinds = Kinds.shipped();
        new KindBook.Shelf(store, kinds).fill();
        return kinds;
    }
}
