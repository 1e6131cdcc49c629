package app.knottag.core.reading;

/**
 * A text or figure of somebody's that cannot be taken, with a message for them: what it is, where, and the way out. Any other
 * {@link IllegalArgumentException} is a fault of the program.
 */
public class ReadingException extends IllegalArgumentException {

    public ReadingException(String message) {
        super(message);
    }

    public ReadingException(String message, Throwable cause) {
        super(message, cause);
    }
}
