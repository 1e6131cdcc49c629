/**
 * Runbooks, waits and nightly restarts, over HTTP. Start at {@link app.knottag.server.onboard.StepWork}.
 *
 * <p>May use: change, log, record, web.
 */
package app.knottag.server.onboard;
