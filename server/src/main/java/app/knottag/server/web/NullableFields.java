package app.knottag.server.web;

import com.fasterxml.jackson.databind.JavaType;
import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import jakarta.validation.constraints.NotNull;
import java.lang.reflect.RecordComponent;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Tells the API's description which fields of a record may be null: by their annotation, as optional ones, and in requests
 * all that are not asked for. Two records of one name would be described as one, so there are none.
 */
@Component
class NullableFields implements ModelConverter {

    private final Map<String, Class<?>> named = new ConcurrentHashMap<>();

    @Override
    public Schema<?> resolve(AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> chain) {
        if (!chain.hasNext()) return null;
        Schema<?> schema = chain.next().resolve(type, context, chain);
        JavaType java = Json.mapper().constructType(type.getType());
        if (java == null || schema == null || !java.getRawClass().isRecord()) return schema;
        var other = named.putIfAbsent(java.getRawClass().getSimpleName(), java.getRawClass());
        if (other != null && other != java.getRawClass())
            throw new IllegalStateException("Two records of the API have one name: " + other.getName() + " and "
                    + java.getRawClass().getName());
        Schema<?> model = context.getDefinedModels().get(java.getRawClass().getSimpleName());
        if (model == null || model.getProperties() == null) return schema;
        for (RecordComponent component : java.getRawClass().getRecordComponents())
            if (mayBeNull(component))
                model.getProperties().computeIfPresent(component.getName(), (name, property) -> nullable(property));
        return schema;
    }

    private static boolean mayBeNull(RecordComponent component) {
        boolean asked = component.getDeclaringRecord().getSimpleName().endsWith("Request")
                && !component.getType().isPrimitive()
                && !component.getAnnotatedType().isAnnotationPresent(NotNull.class);
        return asked
                || component.getType() == Optional.class
                || component.getAnnotatedType().isAnnotationPresent(Nullable.class);
    }

    private static Schema<?> nullable(Schema<?> property) {
        if (property.get$ref() != null)
            return new Schema<>()
                    .anyOf(List.of(new Schema<>().$ref(property.get$ref()), new Schema<>().types(Set.of("null"))));
        if (property.getTypes() != null) property.addType("null");
        if (property.getEnum() != null) property.addEnumItemObject(null);
        return property;
    }
}
