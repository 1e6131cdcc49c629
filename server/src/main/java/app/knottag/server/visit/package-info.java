/**
 * Visits: who does what when, what to do now, and how long it really took. Start at {@link app.knottag.server.visit.Visits}.
 *
 * <p>May use: db, log, record, web.
 */
@NullMarked
package app.knottag.server.visit;

import org.jspecify.annotations.NullMarked;
