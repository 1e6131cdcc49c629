/**
 * A visit: many devices, few hands. Who does what when, how good that is, what to do now, and how sure it all is. Start at {@link
 * app.knottag.core.visit.VisitPlanner}. Pure functions: the same brief gives the same plan. What they take and give is immutable.
 *
 * <p>May use: kind, reading, runbook.
 */
package app.knottag.core.visit;
