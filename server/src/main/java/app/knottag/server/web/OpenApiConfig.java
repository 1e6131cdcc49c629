package app.knottag.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.util.List;
import java.util.TreeSet;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Describes the API; the document is committed as docs/openapi.json and checked against this. */
@Configuration
class OpenApiConfig {

    @Bean
    OpenAPI openApi() {
        return new OpenAPI().info(new Info().title("Knot Tag").version("1"));
    }

    /** Answers always carry every field, so all are required there; requests say themselves what may be left out. */
    @Bean
    OpenApiCustomizer stable() {
        return api -> {
            api.setServers(null);
            api.getComponents().getSchemas().forEach((name, any) -> {
                Schema<?> schema = any;
                if (schema.getProperties() == null || name.endsWith("Request")) return;
                schema.setRequired(
                        List.copyOf(new TreeSet<>(schema.getProperties().keySet())));
            });
        };
    }
}
