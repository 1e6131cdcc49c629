/**
 * What changes an endpoint, by whom it clashes, and what a change undoes. Start at {@link app.knottag.server.change.Consequences}.
 *
 * <p>May use: log, record, web.
 */
package app.knottag.server.change;
