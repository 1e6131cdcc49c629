/**
 * Tells open pages at once where something was changed, whoever changed it at whichever server. Start at
 * {@link app.knottag.server.live.LiveStreams}.
 *
 * <p>May use: db, record, web.
 */
@NullMarked
package app.knottag.server.live;

import org.jspecify.annotations.NullMarked;
