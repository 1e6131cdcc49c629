/**
 * Numbered runs: host = base + n, port = base + n. Start at {@link app.knottag.core.series.Series}.
 */
package app.knottag.core.series;
