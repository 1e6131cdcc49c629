/**
 * Looks that go on every night, and what is told of them in the morning. Start at {@link app.knottag.server.watch.NightRuns}.
 *
 * <p>May use: db, log, probe, record, web.
 */
@NullMarked
package app.knottag.server.watch;

import org.jspecify.annotations.NullMarked;
