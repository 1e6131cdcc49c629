/**
 * The model of a site, and the checks that prove an endpoint reaches its service. Start at {@link app.knottag.core.reach.Ladder}.
 *
 * <p>May use: address, hardware, intake, kind, knot, plan, reading, time.
 */
package app.knottag.core.reach;
