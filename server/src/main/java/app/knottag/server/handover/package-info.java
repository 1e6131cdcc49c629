/**
 * Handing over: what is missing, labels on paper, packs, the logbook. Start at {@link app.knottag.server.handover.Handovers}.
 *
 * <p>May use: change, db, log, record, web.
 */
@NullMarked
package app.knottag.server.handover;

import org.jspecify.annotations.NullMarked;
