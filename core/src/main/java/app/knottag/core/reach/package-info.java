/**
 * The model of a site, and the checks that prove an endpoint reaches its service. Start at {@link app.knottag.core.reach.Ladder}.
 */
package app.knottag.core.reach;
