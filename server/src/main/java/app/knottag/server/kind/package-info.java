/**
 * The kinds that are shipped and people's own, with every version. Start at {@link app.knottag.server.kind.KindBook}.
 *
 * <p>May use: log, web.
 */
package app.knottag.server.kind;
