/**
 * The log of changes, chained, in the transaction that makes the change. Start at {@link app.knottag.server.log.Log}.
 *
 * <p>May use: db.
 */
package app.knottag.server.log;
