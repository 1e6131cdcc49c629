/**
 * The site sheet, addresses, lists that are taken over, and renumbering, over HTTP.
 * Start at {@link app.knottag.server.plan.EndpointController}.
 *
 * <p>May use: change, db, log, record, web.
 */
package app.knottag.server.plan;
