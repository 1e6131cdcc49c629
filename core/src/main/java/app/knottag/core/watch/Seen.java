package app.knottag.core.watch;

import java.util.List;

/**
 * Something that is not as it should be, as one look saw it.
 *
 * @param about whom or what, the same from night to night within what was looked at
 * @param what how it is; when that changes it is news
 * @param endpoint its number, or 0 when it is about none
 * @param title whom it is about and what it is, in a few words
 * @param detail what was seen and what to do
 */
public record Seen(String about, String what, long endpoint, String title, String detail) {

    /** By which it is known again. */
    List<String> key() {
        return List.of(about, what);
    }

    /** Who counts as one, whatever look saw it. */
    String subject() {
        return endpoint == 0 ? about : "endpoint " + endpoint;
    }
}
