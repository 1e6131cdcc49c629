/**
 * The network: questions that are asked of it, outside of any transaction. Start at {@link app.knottag.server.probe.NetworkProbes}.
 *
 * <p>May use: web.
 */
package app.knottag.server.probe;
