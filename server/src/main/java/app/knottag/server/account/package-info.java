/**
 * People, sessions and invitations. Start at {@link app.knottag.server.account.SecurityConfig}.
 *
 * <p>May use: log, web.
 */
package app.knottag.server.account;
