package awlsmith.server.problem;

import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpInputMessage;
import org.springframework.http.converter.HttpMessageConverter;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.servlet.mvc.method.annotation.RequestBodyAdviceAdapter;

/**
 * Refuses bodies that leave out what their record does not call {@code @Nullable}, at any depth. So the annotation that the compiler's
 * reader sees is the rule that is checked, and no record can be forgotten.
 */
@ControllerAdvice
class WholeBodies extends RequestBodyAdviceAdapter {
    @Override
    public boolean supports(MethodParameter parameter, Type type, Class<? extends HttpMessageConverter<?>> converter) {
        return parameter.getParameterType().isRecord();
    }

    @Override
    public Object afterBodyRead(
            @Nullable Object body,
            HttpInputMessage input,
            MethodParameter parameter,
            Type type,
            Class<? extends HttpMessageConverter<?>> converter) {
        if (body == null) {
            throw new Refusal(Refusal.Kind.INVALID, "nothing was sent where something is expected");
        }
        demandWhole(body, "");
        return body;
    }

    static void demandWhole(Object body, String path) {
        for (RecordComponent component : body.getClass().getRecordComponents()) {
            String name = path.isEmpty() ? component.getName() : path + "." + component.getName();
            Object value = valueOf(component, body);
            if (value == null) {
                if (!component.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
                    throw missing(name);
                }
            } else if (value.getClass().isRecord()) {
                demandWhole(value, name);
            } else if (value instanceof List<?> list) {
                demandItems(list, component.getAnnotatedType(), name);
            }
        }
    }

    private static void demandItems(List<?> list, AnnotatedType type, String name) {
        boolean mayMiss = type instanceof AnnotatedParameterizedType of
                && of.getAnnotatedActualTypeArguments()[0].isAnnotationPresent(Nullable.class);
        for (int i = 0; i < list.size(); i++) {
            Object item = list.get(i);
            String place = name + "[" + i + "]";
            if (item == null && !mayMiss) {
                throw missing(place);
            }
            if (item != null && item.getClass().isRecord()) {
                demandWhole(item, place);
            }
        }
    }

    private static Refusal missing(String name) {
        return new Refusal(Refusal.Kind.INVALID, "\"" + name + "\" is missing; it must be given");
    }

    private static @Nullable Object valueOf(RecordComponent component, Object body) {
        try {
            component.getAccessor().setAccessible(true);
            return component.getAccessor().invoke(body);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }
}
