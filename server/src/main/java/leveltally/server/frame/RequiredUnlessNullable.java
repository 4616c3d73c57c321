package leveltally.server.frame;

import io.swagger.v3.core.converter.AnnotatedType;
import io.swagger.v3.core.converter.ModelConverter;
import io.swagger.v3.core.converter.ModelConverterContext;
import io.swagger.v3.core.util.Json;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** In the description of the API a part of a record is there unless it is {@link Nullable}, as in the code. */
@Component
class RequiredUnlessNullable implements ModelConverter {
    @Override
    public @Nullable Schema<?> resolve(
            AnnotatedType type, ModelConverterContext context, Iterator<ModelConverter> others) {
        if (!others.hasNext()) {
            return null;
        }
        Schema<?> schema = others.next().resolve(type, context, others);
        Class<?> raw = Json.mapper().constructType(type.getType()).getRawClass();
        if (schema != null && raw.isRecord()) {
            String reference = schema.get$ref();
            Schema<?> described = reference == null
                    ? schema
                    : context.getDefinedModels().get(reference.substring(reference.lastIndexOf('/') + 1));
            if (described != null && described.getProperties() != null) {
                described.setRequired(required(raw, described));
            }
        }
        return schema;
    }

    private static List<String> required(Class<?> raw, Schema<?> described) {
        return Arrays.stream(raw.getRecordComponents())
                .filter(part -> !part.getAnnotatedType().isAnnotationPresent(Nullable.class))
                .map(RequiredUnlessNullable::name)
                .filter(described.getProperties()::containsKey)
                .toList();
    }

    private static String name(RecordComponent part) {
        var named = part.getAccessor().getAnnotation(com.fasterxml.jackson.annotation.JsonProperty.class);
        return named == null ? part.getName() : named.value();
    }
}
