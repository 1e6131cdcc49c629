/**
 * How core's values stand in the database. Start at {@link app.knottag.server.db.ValueHandlers}.
 *
 * <p>May use: nothing.
 */
package app.knottag.server.db;
