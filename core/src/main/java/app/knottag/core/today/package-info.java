/**
 * What waits for somebody today, at whatever site, and which of it comes first. Start at
 * {@link app.knottag.core.today.Today}.
 *
 * <p>May use: kind, runbook, time.
 */
package app.knottag.core.today;
