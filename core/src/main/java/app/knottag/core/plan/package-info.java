/**
 * Choosing fixed addresses and saying why. Start at {@link app.knottag.core.plan.Planner}.
 *
 * <p>May use: address, hardware, kind, reading, series, time.
 */
package app.knottag.core.plan;
