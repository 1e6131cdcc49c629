/**
 * Choosing fixed addresses and saying why. Start at {@link app.knottag.core.plan.Planner}.
 */
package app.knottag.core.plan;
