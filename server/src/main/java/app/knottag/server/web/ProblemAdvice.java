package app.knottag.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.transaction.CannotCreateTransactionException;
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

    @ExceptionHandler
    ResponseEntity<ProblemDetail> problem(Problem problem) {
        return answer(detail(problem.status(), problem.code(), problem.getMessage(), problem.errors(), problem.more()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> badValue(IllegalArgumentException e) {
        return answer(detail(HttpStatus.UNPROCESSABLE_CONTENT, "bad-value", e.getMessage(), List.of(), Map.of()));
    }

    @ExceptionHandler({DataAccessResourceFailureException.class, CannotCreateTransactionException.class})
    ResponseEntity<ProblemDetail> databaseGone(Exception e) {
        LOG.error("The database cannot be reached", e);
        return answer(detail(
                HttpStatus.SERVICE_UNAVAILABLE,
                "database-unreachable",
                "The database cannot be reached. Nothing was changed; try again in a moment.",
                List.of(),
                Map.of()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> unexpected(Exception e, HttpServletRequest request) throws Exception {
        if (e instanceof AccessDeniedException) throw e;
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
        if (e.getCause() instanceof DatabindException cause && !cause.getPath().isEmpty()) {
            var pointer = new StringBuilder();
            cause.getPath()
                    .forEach(r -> pointer.append('/')
                            .append(r.getPropertyName() == null ? r.getIndex() : r.getPropertyName()));
            Throwable root = cause;
            while (root.getCause() != null) root = root.getCause();
            message = root instanceof IllegalArgumentException && !(root instanceof DatabindException)
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
