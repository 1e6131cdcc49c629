/**
 * Labels, registries, what is due, and swaps, over HTTP. Start at {@link app.knottag.server.register.Registrations}.
 *
 * <p>May use: change, db, log, record, web.
 */
package app.knottag.server.register;
