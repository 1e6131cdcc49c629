package app.knottag.server.web;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.http.HttpStatus;

/** An expected refusal, answered as problem details (RFC 9457) with a stable code and the field it is about. */
public class Problem extends RuntimeException {

    private final transient HttpStatus status;
    private final String code;
    private final transient List<FieldError> errors;
    private final transient Map<String, Object> more;

    /** One field and what is wrong with it; the pointer is a JSON Pointer (RFC 6901) into the request. */
    public record FieldError(String pointer, String code, String message) {}

    private Problem(HttpStatus status, String code, String message, List<FieldError> errors, Map<String, Object> more) {
        super(message);
        this.status = status;
        this.code = code;
        this.errors = List.copyOf(errors);
        this.more = more;
    }

    /** Returns a name of core as problem codes are written, such as in-pool. */
    public static String word(Enum<?> name) {
        return name.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public static Problem of(HttpStatus status, String code, String message) {
        return new Problem(status, code, message, List.of(), Map.of());
    }

    public static Problem field(String field, String code, String message) {
        return fields(List.of(new FieldError("/" + field, code, message)));
    }

    public static Problem fields(List<FieldError> errors) {
        return new Problem(
                HttpStatus.UNPROCESSABLE_CONTENT,
                errors.get(0).code(),
                errors.get(0).message(),
                errors,
                Map.of());
    }

    public static Problem notFound(String what) {
        return of(HttpStatus.NOT_FOUND, "not-found", what);
    }

    public static Problem conflict(String field, String code, String message, Map<String, Object> more) {
        return new Problem(
                HttpStatus.CONFLICT, code, message, List.of(new FieldError("/" + field, code, message)), more);
    }

    HttpStatus status() {
        return status;
    }

    public String code() {
        return code;
    }

    List<FieldError> errors() {
        return errors;
    }

    Map<String, Object> more() {
        return more;
    }
}
