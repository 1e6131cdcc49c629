/**
 * What all routes share: problem details, versions, idempotency, the bounds of a request. Start at {@link app.knottag.server.web.Problem}.
 *
 * <p>May use: db.
 */
package app.knottag.server.web;
