package app.knottag.server.web;

import app.knottag.core.reading.ReadingException;
import app.knottag.server.db.SqlErrors;
import jakarta.servlet.http.HttpServletRequest;
import java.net.SocketTimeoutException;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.TypeMismatchException;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.transaction.TransactionSystemException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.databind.DatabindException;

/** Turns every refusal into problem details with a stable {@code code}. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);
    private final Door door;

    ProblemAdvice(Door door) {
        this.door = door;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> problem(Problem problem) {
        return answer(detail(problem.status(), problem.code(), problem.getMessage(), problem.errors(), problem.more()));
    }

    /** Core's own word on what somebody typed; any other illegal argument is a fault of the program. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> unreadable(ReadingException e) {
        return answer(detail(HttpStatus.UNPROCESSABLE_CONTENT, "bad-value", e.getMessage(), List.of(), Map.of()));
    }

    /** What the database says of a request: not there, cannot stand beside what is there, or no such value. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> database(DataAccessException e, HttpServletRequest request) {
        if (SqlErrors.gone(e)) {
            door.databaseGone(e);
            LOG.error("The database cannot be reached: {}", e.getMessage());
            return answer(detail(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "database-unreachable",
                    "The database cannot be reached. Nothing was changed; try again in a moment.",
                    List.of(),
                    Map.of()));
        }
        String state = SqlErrors.state(e.getRootCause());
        if (state.startsWith("23") || state.startsWith("40"))
            return answer(detail(
                    HttpStatus.CONFLICT,
                    "clash",
                    "Something on record stands against this, or was changed at the same moment. Look again, then repeat it.",
                    List.of(),
                    Map.of("rule", SqlErrors.rule(e.getRootCause()))));
        if (state.startsWith("22"))
            return answer(detail(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "bad-value",
                    "A figure, date or character in this cannot be kept: it is out of range.",
                    List.of(),
                    Map.of()));
        return unexpected(e, request);
    }

    @ExceptionHandler({DataAccessResourceFailureException.class, CannotCreateTransactionException.class})
    ResponseEntity<ProblemDetail> databaseGone(Exception e) {
        return database(new DataAccessResourceFailureException(String.valueOf(e.getMessage()), e), null);
    }

    /** A connection that breaks while it commits: nobody knows what the database still did. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> broken(TransactionSystemException e, HttpServletRequest request) {
        if (!SqlErrors.gone(e)) return unexpected(e, request);
        door.databaseGone(e);
        boolean commits = String.valueOf(e.getMessage()).contains("commit");
        if (!commits)
            return database(new DataAccessResourceFailureException(String.valueOf(e.getMessage()), e), request);
        LOG.error("The database went away in a commit: {}", e.getMessage());
        return answer(detail(HttpStatus.SERVICE_UNAVAILABLE, "perhaps-kept", Door.PERHAPS, List.of(), Map.of()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> denied(AccessDeniedException e) {
        throw e;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> unexpected(Exception e, HttpServletRequest request) {
        LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), e);
        return answer(detail(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "unexpected",
                "Something went wrong here, not with what you typed. Nothing was changed; the server's log says more.",
                List.of(),
                Map.of()));
    }

    @Override
    protected ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        var errors = e.getBindingResult().getFieldErrors().stream()
                .map(f -> new Problem.FieldError(
                        "/" + f.getField().replace('.', '/'), "bad-value", f.getDefaultMessage()))
                .toList();
        String message =
                errors.isEmpty() ? "The request cannot be read." : errors.get(0).message();
        return ResponseEntity.unprocessableContent()
                .body(detail(HttpStatus.UNPROCESSABLE_CONTENT, "bad-value", message, errors, Map.of()));
    }

    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        List<Problem.FieldError> errors = List.of();
        String message = "The request body is not the JSON that belongs here.";
        for (Throwable t = e; t != null; t = t.getCause() == t ? null : t.getCause()) {
            if (t instanceof BodyGuard.TooLarge)
                return ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE)
                        .body(detail(HttpStatus.CONTENT_TOO_LARGE, "too-large", t.getMessage(), List.of(), Map.of()));
            if (t instanceof BodyGuard.TooSlow || t instanceof SocketTimeoutException)
                return ResponseEntity.status(HttpStatus.REQUEST_TIMEOUT)
                        .body(detail(
                                HttpStatus.REQUEST_TIMEOUT,
                                "too-slow",
                                "The request came too slowly and was given up. Send it again.",
                                List.of(),
                                Map.of()));
        }
        if (e.getCause() instanceof DatabindException cause && !cause.getPath().isEmpty()) {
            var pointer = new StringBuilder();
            cause.getPath()
                    .forEach(r -> pointer.append('/')
                            .append(r.getPropertyName() == null ? r.getIndex() : r.getPropertyName()));
            Throwable root = cause;
            while (root.getCause() != null) root = root.getCause();
            message = root instanceof ReadingException
                    ? root.getMessage()
                    : "The value at " + pointer + " is not one that belongs there.";
            errors = List.of(new Problem.FieldError(pointer.toString(), "bad-value", message));
        }
        return ResponseEntity.badRequest()
                .body(detail(HttpStatus.BAD_REQUEST, "unreadable-request", message, errors, Map.of()));
    }

    @Override
    protected ResponseEntity<Object> handleExceptionInternal(
            Exception e, Object body, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        if (body == null && e instanceof ErrorResponse known) body = known.getBody();
        if (body instanceof ProblemDetail detail
                && (detail.getProperties() == null || !detail.getProperties().containsKey("code")))
            detail.setProperty("code", "http-" + status.value());
        return super.handleExceptionInternal(e, body, headers, status, request);
    }

    /** A path or parameter that is no number or no such word: which one, without the names of our classes. */
    @Override
    protected ResponseEntity<Object> handleTypeMismatch(
            TypeMismatchException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        String name = e.getPropertyName() == null ? "a value" : "“" + e.getPropertyName() + "”";
        return ResponseEntity.badRequest()
                .body(detail(
                        HttpStatus.BAD_REQUEST,
                        "bad-value",
                        "The value of " + name + " is not one that belongs there.",
                        List.of(),
                        Map.of()));
    }

    private static ResponseEntity<ProblemDetail> answer(ProblemDetail detail) {
        return ResponseEntity.status(detail.getStatus()).body(detail);
    }

    private static ProblemDetail detail(
            HttpStatus status, String code, String message, List<Problem.FieldError> errors, Map<String, Object> more) {
        var detail = ProblemDetail.forStatusAndDetail(status, message);
        detail.setProperty("code", code);
        detail.setProperty("errors", errors);
        if (!errors.isEmpty()) detail.setProperty("pointer", errors.get(0).pointer());
        more.forEach(detail::setProperty);
        return detail;
    }
}
