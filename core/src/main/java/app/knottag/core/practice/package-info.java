/**
 * Cases to get good at before it counts, judged by the same search that looks for real causes. Start at
 * {@link app.knottag.core.practice.Review}.
 *
 * <p>May use: kind, reach, reading.
 */
package app.knottag.core.practice;
