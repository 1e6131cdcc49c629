package app.knottag.server.web;

import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;

/** Versions of records as entity tags (RFC 9110): every change names the version it was made from. */
public final class Etags {

    private Etags() {}

    public static <T> ResponseEntity<T> answer(HttpStatus status, int version, T body) {
        return ResponseEntity.status(status).eTag("\"" + version + "\"").body(body);
    }

    public static int required(String ifMatch) {
        if (ifMatch == null || ifMatch.isBlank())
            throw Problem.of(
                    HttpStatus.PRECONDITION_REQUIRED,
                    "if-match-missing",
                    "Send the version that you have seen in an If-Match header.");
        String digits = ifMatch.replaceAll("^(W/)?\"|\"$", "");
        if (!digits.matches("[0-9]{1,9}"))
            throw Problem.of(
                    HttpStatus.BAD_REQUEST,
                    "if-match-unreadable",
                    "If-Match must be the ETag of the record, such as \"3\".");
        return Integer.parseInt(digits);
    }

    public static Problem stale() {
        return Problem.of(
                HttpStatus.PRECONDITION_FAILED,
                "changed-meanwhile",
                "Somebody changed this in the meantime. Look at it again; what you typed is still here.");
    }
}
