/**
 * What is really there against the record. Start at {@link app.knottag.server.audit.Audits}.
 *
 * <p>May use: db, log, record, web.
 */
@NullMarked
package app.knottag.server.audit;

import org.jspecify.annotations.NullMarked;
