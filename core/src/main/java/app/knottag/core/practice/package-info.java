/**
 * Cases to get good at before it counts, judged by the same search that looks for real causes; small tasks for hands and eyes,
 * judged by the readers of the job; and things to plan, judged against the best there is. Start at {@link
 * app.knottag.core.practice.Review}, {@link app.knottag.core.practice.Hands} and {@link app.knottag.core.practice.Plans}.
 *
 * <p>May use: address, figure, guard, hardware, kind, plan, reach, reading, runbook, visit.
 */
package app.knottag.core.practice;
