/**
 * Cases to get good at before it counts, judged by the same search that looks for real causes, and small tasks for hands and
 * eyes, judged by the readers of the job. Start at {@link app.knottag.core.practice.Review} and
 * {@link app.knottag.core.practice.Hands}.
 *
 * <p>May use: address, hardware, kind, reach, reading, runbook.
 */
package app.knottag.core.practice;
