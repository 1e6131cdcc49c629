/**
 * Numbered runs: host = base + n, port = base + n. Start at {@link app.knottag.core.series.Series}.
 *
 * <p>May use: address, reading.
 */
package app.knottag.core.series;
