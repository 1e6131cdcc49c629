/**
 * Looks that go on every night: in which hours, in which order, and what of it is new in the morning. Start at
 * {@link app.knottag.core.watch.Night}.
 *
 * <p>May use: reach, reading, runbook, time, today.
 */
package app.knottag.core.watch;
