/**
 * The model of a site, and the checks that prove an endpoint reaches its service. Start at {@link app.knottag.core.reach.CheckRunner}.
 *
 * <p>May use: address, hardware, intake, kind, plan, reading, status, time.
 */
package app.knottag.core.reach;
