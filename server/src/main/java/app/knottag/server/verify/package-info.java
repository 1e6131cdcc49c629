/**
 * Checks, the search for a cause, sweeps and the sign-off, over HTTP. Start at {@link app.knottag.server.verify.Confirm}.
 *
 * <p>May use: change, db, log, probe, record, web.
 */
package app.knottag.server.verify;
