/**
 * The watched outlet: what it does to a router whose line fails, second by second, and how often it restarts one for nothing.
 * Start at {@link app.knottag.core.guard.OutageSheet}. Types are immutable.
 *
 * <p>May use: address, figure, reading.
 */
package app.knottag.core.guard;
